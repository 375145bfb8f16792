export { castsByPart, isByFeet, type Moment, moments, slotOfCast, soundOfCast } from './model/casting.ts';
export { castOf, inOrder, type Show, splitRef, controlRef } from './model/documents.ts';
export {
  type Action,
  type Cable,
  type CastAction,
  type ControlRef,
  type Cast,
  type Device,
  type DeviceIntent,
  type DeviceType,
  type Plug,
  type Rig,
  type Slot,
  type Sound,
  type NoteValue,
  noteValues,
  conventionOf,
  type Conventions,
  conventions,
  type StoredPreset,
  type Variant,
  type Waiver,
} from './model/rig.ts';
export { type Part, type Song, type Songbook, type SetList } from './model/songbook.ts';
export {
  type Anatomy,
  type Control,
  type Owner,
  effectKinds,
  type EffectKind,
  type PowerUp,
  domainValues,
  type Jack,
  type Section,
  type ControlValue,
} from './model/anatomy.ts';
export { movedBy, type StoredOrder } from './model/anatomy.ts';
export { isOrder, listedOrder, orderControls, orderOf, orderRefs, orderTyped, orderWords } from './model/orders.ts';
export { anatomyOf, archetypeOf } from './model/archetypes/registry.ts';
export type { ParamSpec } from './model/archetypes/archetype.ts';
export { loopsOf, switchingOf, type Loop, type Switching } from './model/switching.ts';
export {
  actionLabel,
  controlLabel,
  cueLabel,
  deviceName,
  domainLabel,
  noteWords,
  panelNumber,
  plugLabel,
  switchLabel,
  valueLabel,
} from './model/labels.ts';
export { inputsOf, instrumentNamed, instrumentOfPart, instrumentsOf } from './model/instruments.ts';
export { slotLabel, slotPlace, slotPlaceTyped, slotsOfController } from './model/slots.ts';
export { memoised } from './model/memo.ts';
export { isByHand, isWiredAlike, relabelled, buildWiring, type WiredDevice, type Wiring } from './model/wiring.ts';
export { nameShape } from './model/rig.ts';
export { sharingProblems, withSongbook } from './model/sharing.ts';
export { chosenSetList, partsInSetOrder } from './model/set-order.ts';
export { differencesBetween, settingWords, type TypeDifference, typeDifferences } from './catalogue/differences.ts';
export { libraryOf, typeOfToday, typicalFactsFor } from './catalogue/library.ts';
export { catalogue, type CatalogueEntry, findTypes, typeById } from './catalogue/types.ts';
export * as editAnatomy from './design/edit-anatomy.ts';
export { type JackWidth, jackWidths } from './design/edit-anatomy.ts';
export { type AnatomyDifference, anatomyDifferences } from './design/anatomy-differences.ts';
export {
  conditionParts,
  domainWords,
  jackKindWords,
  modeWords,
  pointWords,
  repeatWords,
  scopeWords,
} from './design/anatomy-words.ts';
export { domainTyped } from './design/domain-typed.ts';
export { isDeclared } from './design/opened-type.ts';
export { type Schematic, schematicOf } from './design/schematic.ts';
export { nameType, openDevice, setAnatomy, stillNeeded, takeType } from './change/set-anatomy.ts';
export { type Arrival, arrivalOf, readTypes, typesLimit, typesSchema, writeTypes } from './formats/types-file.ts';
export { checkType } from './model/check-type.ts';
export type { JackKind } from './model/jack-kinds.ts';
export { anatomyJackKinds, jackFacts } from './model/jack-kinds.ts';
export * as commands from './change/commands.ts';
export type { Command } from './change/commands.ts';
export { describeCommand } from './change/command-words.ts';
export { type ActionLine, readActionLine } from './change/action-line.ts';
export { between } from './change/order.ts';
export { endsOf, isOut, type CableEnd } from './model/cable-ends.ts';
export { addRigText, leftOver } from './entry/add-rig-text.ts';
export { type Completion, type CompletionOption, completeRigText } from './entry/complete.ts';
export { freeChannel, freshId, freshName } from './model/names.ts';
export { readRigText } from './entry/read-rig-text.ts';
export type { AddedCable, AddedDevice, CableEndRead, Choices, Misreading, RigText, TextRow } from './entry/rig-text.ts';
export { combine } from './change/combine.ts';
export { stepsBetween } from './change/difference.ts';
export { rebaseSteps } from './change/rebase.ts';
export { applySteps, type Batch, checkShow, invertSteps, type Step } from './change/steps.ts';
export { sameData } from './units/same-data.ts';
export { addBuiltOn, buildOn, revertTo, setTwin, twinBank, withFollowers } from './change/based-on.ts';
export { baseOf, differencesOf, followersOf, oddOnesOut, type Wanted, wantedOf } from './model/based-on.ts';
export { variantBy } from './variants/edit.ts';
export { type AtHome, leaveAtHome, losses, whatCanStayAtHome } from './home/at-home.ts';
export { addVariant, editVariant, removeVariant, setVariant, settleConflicts } from './variants/edit.ts';
export { type Move, type MoveKind, movesBetween } from './variants/moves.ts';
export { type Conflict, variantNamed, variantOf, type VariantView } from './variants/view.ts';
export { placeWords } from './variants/place-words.ts';
export { moveHeadings, movesSheet } from './paper/moves-sheet.ts';
export { demoShow, flyShow } from './demo/demo.ts';
export { emptyShow } from './starters/empty.ts';
export { type Starter, starterById, type StarterId, starterIds, starters } from './starters/starters.ts';
export type { Cycle } from './trace/feedback.ts';
export {
  compareTraces,
  settingDifferences,
  type SettingDifference,
  type TraceComparison,
  type Traced,
} from './trace/compare-traces.ts';
export type { Pass } from './trace/passes.ts';
export { type Inside, insideOf } from './trace/inside.ts';
export { type Jumper, type Trace, Tracer } from './trace/trace.ts';
export { type VolumePlace, volumePedals, volumePlace } from './trace/volume-place.ts';
export { volumeWords } from './why/volume-words.ts';
export type { Collapse, Width } from './trace/widths.ts';
export { type PresetColumn, presetColumns, presetText, presetTyped, presetTurned } from './program/preset-table.ts';
export { displayName } from './program/display-name.ts';
export { listActions, type ListedAction, type ListedSlot, listSlot } from './program/listing.ts';
export { layByRole, layBySong } from './program/layout.ts';
export type { LayoutCost } from './program/layout-cost.ts';
export { encode, encodeStream, hex, type MidiMessage, wireMicroseconds } from './midi/message.ts';
export type { Judgement, Level, PartJudgement, Verdict } from './recall/prove/verdict.ts';
export type { Loss, Sequence, SequenceStep } from './recall/deliver/sequence.ts';
export { lossWords } from './why/loss-words.ts';
export { type Played, type PlayedStep, play } from './recall/replay/play.ts';
export {
  type FootPlan,
  footPlan,
  type MistakeReport,
  type PartPlan,
  partPlans,
  type PlanStep,
  type ResetReport,
} from './recall/replay/foot-plan.ts';
export { Prover } from './recall/prove/prover.ts';
export { type StrayEffect, strayEffects, type StrayReport, strayReports } from './recall/replay/accidental-presses.ts';
export { proverOf } from './recall/prove/prover-of.ts';
export { check, type Checked, contextOf } from './check/engine.ts';
export { type Context, type Finding, type Rule, type Severity, severityWords } from './check/define-rule.ts';
export { isAboutSongs, type Unjudged, unjudged, unjudgedWords } from './check/unjudged.ts';
export { formatFinding } from './check/format-finding.ts';
export { rules } from './check/rules/index.ts';
export { rulesPage } from './check/rules-page.ts';
export { type SmfEvent, type Smf, placer } from './midi/smf.ts';
export { type FloorSwitch, floorSwitches, footPath, footTravel, songOf } from './show/floor.ts';
export { type BankChange, type SetCost, setCost } from './show/set-cost.ts';
export { delayTimes } from './show/delay-times.ts';
export { type Assumed, setFile, songFile, type SongFile } from './show/song-midi.ts';
export { cueSheet, playedOnWords, type PartSteps, resetWords } from './paper/cue-sheet.ts';
export { patchList } from './paper/patch-list.ts';
export { powerPlan } from './paper/power-plan.ts';
export {
  type PackCase,
  type PackItem,
  type Packing,
  type PartRow,
  type Shopping,
  isDate,
  travels,
} from './model/pack.ts';
export {
  filledCases,
  type FilledCase,
  packed,
  type Packed,
  packingOf,
  putInCase,
  setPacking,
  tagLines,
  unpacked,
  usualLimits,
} from './pack/cases.ts';
export {
  type Bill,
  bandOf,
  billOf,
  partsToBuy,
  type PartToBuy,
  setPart,
  setShopping,
  shoppingOf,
  sparesOf,
  substitutesFor,
} from './pack/parts.ts';
export { packingList, shoppingList, tagSheet } from './paper/packing.ts';
export { cableSchedule, endWords } from './paper/cable-schedule.ts';
export {
  type Board,
  type BoardSpot,
  type Body,
  type BodySide,
  type BuyFacts,
  type Edge,
  edges,
  type Reel,
  sides,
} from './model/body.ts';
export { type BoardOf, boardsOf, type PieceOn, type PlugOn } from './build/boards.ts';
export { arrangeProblemOf, boardOf, placePieces, setSpot } from './build/arrangement.ts';
export {
  boardFigures,
  overhang,
  overlaps,
  plugThatClears,
  standing,
  type Standing,
  tooTall,
} from './build/judge-board.ts';
export {
  type CableRun,
  cableRuns,
  cutListOf,
  type EndToMake,
  knownLength,
  type Loom,
  loomsOf,
  pluggingOrder,
} from './build/runs.ts';
export { type CutList } from './build/cut.ts';
export { lineEndWords, type LineThrough, linesThrough } from './build/lines.ts';
export { endChoices, jackChoices, plugFits, plugFor } from './model/connectors.ts';
export { touchesOf } from './build/touches.ts';
export { setBoard, setBody, setBuy, setReels, takeTypical, type TypicalFacts } from './change/build.ts';
export { arrange, type Arranged, type ArrangeProgress, freeSpot } from './arrange/arrange.ts';
export {
  type ArrangeProblem,
  type Arrangement,
  type CannotFit,
  checkArrange,
  costOfArrangement,
  judgeArrangement,
  totalOf,
} from './arrange/problem.ts';
export {
  type MainsNeeds,
  type MainsVenue,
  type PowerLine,
  type PowerNeeds,
  type PowerOutput,
  type PowerSettings,
  type PowerSource,
  type PowerSupplyFacts,
  powerInlet,
  powerSources,
  type TypePower,
  type UnitPower,
} from './model/power.ts';
export { jackOf, jacksOf } from './model/jacks.ts';
export {
  feedLabel,
  type FeedInUse,
  headroomOf,
  type LimitInUse,
  outputLabel,
  type PowerInUse,
  powerInUse,
  suppliesOf,
  type WiredLoad,
} from './power/wired.ts';
export { type MainsNode, mainsChain, standsMains, wallAmps, wallVa } from './power/mains.ts';
export { type BatteryLife, batteryLives, hoursNeeded } from './power/battery.ts';
export { leadsOf, supplyProblemOf } from './power/problem-of.ts';
export { compileSupply, usualHeadroom } from './supply/problem.ts';
export { type CompiledSupply } from './supply/problem.ts';
export { solveSupply, type SupplyProgress } from './supply/solve.ts';
export { type PowerAnswer, type PowerPlan, type PowerProgress, planPower } from './power/plan.ts';
export { type PowerCure, type TriedCure } from './power/cures.ts';
export { givePower } from './power/write.ts';
export {
  centreWords,
  choiceWords,
  cureLeft,
  cureWords,
  hoursWords,
  leadWords,
  loadedPercent,
  needsWords,
  outputWords,
  planChanges,
  supplyCostWords,
  voltsRange,
} from './power/words.ts';
export { feedLoad, setPowerSettings, setTypePower, setUnitPower } from './change/power.ts';
export { lacksHeadroom, needsReversing, type SupplyCost } from './supply/judge.ts';
export { saidBy, type Sheet, type SheetGroup, type SheetLine } from './paper/sheet.ts';
export { worksheet } from './paper/worksheet.ts';
export { bankPlans } from './paper/bank-plan.ts';
export { programmingSheets } from './paper/programming.ts';
export {
  csvLimits,
  readSetList,
  readSongs,
  type Rows,
  setListRows,
  sheetRows,
  songRows,
  writeRows,
} from './formats/csv.ts';
export { readSmf, writeSmf } from './formats/smf.ts';
export { type LeftOut, songsFromMidi, type SongsFromMidi } from './formats/songs-from-midi.ts';
export { batchLimits, readBatch } from './formats/batch.ts';
export { showOfToday, stepOfToday, storedShow } from './formats/version-1.ts';
export { jsonSize } from './formats/json-size.ts';
export { repairShow } from './change/repair.ts';
export { exportShow, importShow, normalised, readShow, showSchema, wireLimits } from './formats/json.ts';
export { lengthIn, lengthLabel } from './units/length.ts';
export { said } from './units/said.ts';
export { kilograms, tenths } from './units/shown.ts';
export { lengthTyped, numberTyped, rangeText, rangeTyped } from './units/typed.ts';
export { assertNever, describeProblem, type Problem, type ProblemCode, problem, type Result } from './units/problem.ts';
export type { Evidence } from './why/evidence.ts';
export * as why from './why/index.ts';
export { type Allocation, allocate, allocateNow, type AllocationProgress, fewestLoops } from './allocate/allocate.ts';
export { costOf, isAllowed, type JudgedPlan, judgePlan } from './allocate/judge-plan.ts';
export { type CostName, compareCosts, costNames, type Plan, type PlanCost } from './allocate/plan.ts';
export {
  type AllocationProblem,
  type CompiledProblem,
  compileProblem,
  loopAtZone,
  type Pin,
} from './allocate/problem.ts';
export { type SwitchingMeans, switchingMeans } from './model/rig.ts';
export { tolerate, wantBefore, wantPlace, wantSwitchedBy } from './change/intent.ts';
export { allocationOf, type Changed, plannedSounds, planAsWired } from './intent/allocation-of.ts';
export { type Line, lineOf, type LinePiece, type NoLine, switchersOf } from './intent/line.ts';
export {
  costDifference,
  lostWords,
  type OtherPlace,
  otherPlaces,
  placeWords as plannedPlaceWords,
  type PlannedLine,
  pressWords,
  switchedByWords,
  whyThere,
} from './intent/plan-words.ts';
export { type PatchChange, patchChange, writePatch } from './intent/write-patch.ts';
export { type Figures, figureRows, figuresOf } from './check/figures.ts';
