import { Command, CommanderError } from 'commander';
import {
  applyCommand,
  bookCommand,
  CHECKED,
  checkCommand,
  cutCommand,
  exportCommand,
  importCommand,
  newCommand,
  nextCommand,
  reportCommand,
  ruleCommand,
  rulesCommand,
  sectionCommand,
  walkCommand,
} from './commands.js';
import { CommandFailure } from './failure.js';
import {
  compareCommand,
  gapsCommand,
  mendCommand,
  modesCommand,
  suggestCommand,
  weighCommand,
} from './layout-commands.js';
import { doneCommand, logCommand, scheduleCommand, todayCommand } from './work-commands.js';

const wholeNumber = (text: string): number => {
  const value = Number(text);
  if (!Number.isFinite(value) || value < 0) throw new CommandFailure(2, `“${text}” is not a number of 0 or more.`);
  return value;
};

/** All commands, anew: what is asked of one run says nothing to the next. */
export function createProgram(): Command {
  const program = new Command('plank')
    .description('Nest Plank on the command line: the same computation, without the server.')
    .exitOverride();
  program
    .command('report')
    .argument('<file>', 'a project file')
    .description('print everything derived as JSON')
    .action(reportCommand);
  program
    .command('check')
    .argument('<file>', 'a project file')
    .option('--only <what>', `only some of ${CHECKED.join(', ')}, with commas between`)
    .description('exit 1 if a rule, a closure or a reading fails, or something cannot be made, and say which')
    .action(checkCommand);
  program
    .command('new')
    .requiredOption('-o, --output <file>', 'the project file to write')
    .requiredOption('--kind <kind>', 'van, bus or trailer')
    .requiredOption('--name <name>', 'what the build is called')
    .option('--units <units>', 'mm or in', 'mm')
    .description('write a new project')
    .action(newCommand);
  program
    .command('walk')
    .argument('<file>', 'a project file')
    .description('print the places of the walk in their order as JSON')
    .action(walkCommand);
  program
    .command('next')
    .argument('<file>', 'a project file')
    .description('print the reading that would help most, and its gain, as JSON')
    .action(nextCommand);
  program
    .command('section')
    .argument('<file>', 'a project file')
    .requiredOption('--x <mm>', 'the place along the vehicle', wholeNumber)
    .description('print the section there, bare and inside the linings, as JSON')
    .action(sectionCommand);
  program
    .command('cut')
    .argument('<job>', 'a cut-job.json')
    .option('-o, --output <plan>', 'where to write the cut-plan.json; printed otherwise')
    .option('--seconds <n>', 'time allowed', wholeNumber, 5)
    .option('--seed <n>', 'seed of the search', wholeNumber, 1)
    .description('nest parts on stock')
    .action(cutCommand);
  program
    .command('export')
    .argument('<file>', 'a project file')
    .requiredOption(
      '--as <format>',
      'json, csv, dxf, dxf-r12, svg, pdf, gltf, labels, sheets, templates, shopping, readings or survey',
    )
    .requiredOption('-o, --output <dir>', 'the folder to write to')
    .option('--mode <name>', 'gltf: the mode everything stands in; shut and stowed otherwise')
    .description('write open files')
    .action(exportCommand);
  program
    .command('import')
    .argument('<file>', 'a project file')
    .option('--readings <csv>', 'take in a file of readings')
    .option('-o, --output <new>', 'where to write the new project; printed otherwise')
    .description('read a file, say what it holds, exit 2 if it is not sound; or take in readings')
    .action(importCommand);
  program
    .command('book')
    .argument('<file>', 'a project file')
    .option('--take <csv>', 'take in materials of a CSV')
    .option('-o, --output <new>', 'where to write; printed otherwise')
    .description('write the price book as CSV, or a project whose price book has taken one in')
    .action(bookCommand);
  program
    .command('apply')
    .argument('<file>', 'a project file')
    .argument('<operations>', 'a list of named operations as JSON')
    .option('-o, --output <new>', 'where to write the new file; printed otherwise')
    .description('apply named operations, the same as the interface sends')
    .action(applyCommand);
  program
    .command('gaps')
    .argument('<file>', 'a project file')
    .description('print the free stretches of the room, and which families fit there now, as JSON')
    .action(gapsCommand);
  program
    .command('mend')
    .argument('<file>', 'a project file')
    .option('-o, --output <new>', 'where to write the mended project')
    .description(
      'search for mends that together leave nothing failing, and say what they change; exit 1 if some still fails',
    )
    .action(mendCommand);
  program
    .command('modes')
    .argument('<file>', 'a project file')
    .description('print what each mode leaves free and what moves to the next, as JSON')
    .action(modesCommand);
  program
    .command('weigh')
    .argument('<file>', 'a project file')
    .description('print what everything weighs and where, as JSON')
    .action(weighCommand);
  program
    .command('compare')
    .argument('<file>', 'a project file')
    .argument('<other>', 'another')
    .description('print two layouts by their figures, what differs, and what of the work done it touches, as JSON')
    .action(compareCommand);
  program
    .command('suggest')
    .argument('<file>', 'a project file')
    .argument('<wishes>', 'a wishes.json: what has to be in, and what is wished for')
    .requiredOption('-o, --output <dir>', 'the folder to write the proposals to')
    .option('--seconds <n>', 'time allowed', wholeNumber, 20)
    .option('--seed <n>', 'seed of the search', wholeNumber, 1)
    .description('search for arrangements that pass every hard rule')
    .action(suggestCommand);
  program
    .command('schedule')
    .argument('<file>', 'a project file')
    .option('--date <day>', 'the day it is: nothing is planned before it; without it, the last thing done tells')
    .description('print the order of work with its days, what cures and what is done, as JSON')
    .action(scheduleCommand);
  program
    .command('today')
    .argument('<file>', 'a project file')
    .option('--date <day>', 'the day; without it, the first that has work')
    .description('print the tasks of a day: what to take along, what to watch for, and why then, as JSON')
    .action(todayCommand);
  program
    .command('done')
    .argument('<file>', 'a project file')
    .argument('<task>', 'a task, as schedule names it')
    .option('-o, --output <new>', 'where to write the project; the file itself otherwise')
    .option('--at <time>', 'when, as 2026-12-01T15:30:00Z; now otherwise')
    .option('--minutes <n>', 'how long it took in all', wholeNumber)
    .option('--by <name>', 'who did it')
    .option('--undo', 'take the tick back')
    .description('tick a task, with what that says of the vehicle; the days ahead follow')
    .action(doneCommand);
  program
    .command('log')
    .argument('<file>', 'a project file')
    .option('--write <text>', 'write an entry')
    .option('--kind <kind>', 'what it is: note, decision, mistake, snag, test, lesson, …', 'note')
    .option('--task <task>', 'the task it goes with')
    .option('--by <name>', 'who writes')
    .option('--at <time>', 'when; now otherwise')
    .option('-o, --output <new>', 'where to write the project; the file itself otherwise')
    .description('print the logbook as JSON, or write an entry into it')
    .action(logCommand);
  program.command('rules').description('list every rule and formula with its inputs').action(rulesCommand);
  program
    .command('rule')
    .argument('<name>')
    .argument('<input>', 'a JSON file with the inputs, or - for standard input')
    .description('run one rule alone')
    .action(ruleCommand);
  return program;
}

/** What a run that did not end well exits with; its message is written. What was not foreseen is thrown on. */
export function failed(problem: unknown): number {
  if (problem instanceof CommanderError) return problem.exitCode === 0 ? 0 : 2;
  if (!(problem instanceof CommandFailure)) throw problem;
  process.stderr.write(`${problem.message}\n`);
  return problem.code;
}
