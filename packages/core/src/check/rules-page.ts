import { type Rule, severityWords } from './define-rule.ts';

/** Every rule in words, for the documentation: made from what the rules say of themselves. */
export function rulesPage(rules: readonly Rule[]): string {
  const topics = [...new Set(rules.map((rule) => rule.meta.id.split('/')[0]))];
  const of = (topic: string) => rules.filter((rule) => rule.meta.id.startsWith(`${topic}/`));
  return [
    '# The rules',
    '',
    `${rules.length} rules, made into this page from their own words. Severity is the usual one; a rule may find a case graver or lighter. A finding can be lived with, with a reason, from the drawer.`,
    '',
    ...topics.flatMap((topic) => [
      `## ${topic === 'midi' ? 'MIDI' : `${topic[0].toUpperCase()}${topic.slice(1)}`}`,
      '',
      ...of(topic).flatMap(({ meta }) => [
        `**${meta.title}** (\`${meta.id}\`, ${severityWords[meta.severity]}). ${meta.why} *${meta.remedy}* Source: ${meta.source}.`,
        '',
      ]),
    ]),
  ].join('\n');
}
