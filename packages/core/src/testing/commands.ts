export * as commands from '../change/commands.ts';
