import { type Plan, byName, finish } from '../../plan';
import { socketTitle } from '../air-seats';
import { type BenchBox, Practice, type WireBenchAction, laptopTyped } from './view';

/** The bench by typed commands: for a terminal, and for scripts. */

const HELP = `next [N]            do what the order says next, once or N times; "next all" to the end
boxes               how each box is
left BOX            what is left to set on a box, by number
set BOX N           set it from the laptop
console BOX N       set it at the console of the box, which always answers
save BOX            keep what is set over a restart
plug BOX            plug in its cables to other boxes
restart BOX         pull its plug and put it in again
reset BOX           press the pin: it is as it comes
sockets             where the laptop can be plugged in, or what it can join
sit N               plug the laptop in there, by its number in that list
laptop [ADDRESS/N]  give it an address; with none it takes what the segment gives
help, quit`;

/** A bench that answers in text. A command that is not understood changes nothing. */
export class SpokenBench {
  private readonly practice: Practice;

  constructor(private readonly plan: Plan) {
    this.practice = new Practice(plan);
  }

  /** Is nothing left to do? */
  isFinished = (): boolean => this.look().next === null;

  /** What there is to say to a command. */
  answer(line: string): string {
    const [word = '', ...rest] = line.trim().split(/\s+/);
    const [name = '', number = ''] = rest;
    switch (word) {
      case '':
      case 'help':
        return HELP;
      case 'next':
        return this.next(name);
      case 'boxes':
        return this.boxes();
      case 'left':
        return this.withBox(name, ({ left }) => listed(left.map(({ does }) => does)));
      case 'set':
      case 'console':
        return this.withBox(name, ({ left }) => {
          const chosen = left[Number(number) - 1];
          if (!chosen)
            return `“${number}” is no number of what is left there, 1 to ${left.length}; type: left ${name}`;
          return this.do([{ kind: word, step: chosen.step }], chosen.does);
        });
      case 'save':
        return this.withBox(name, ({ device }) =>
          this.do([{ kind: 'set', step: { device, setting: { kind: 'save' } } }], 'Saved'),
        );
      case 'plug':
        return this.withBox(name, ({ device, apart }) =>
          apart
            ? this.do(
                [{ kind: 'set', step: { device, setting: { kind: 'plug', after: 'save' } } }],
                'Plugged in',
              )
            : 'Its cables are plugged in.',
        );
      case 'restart':
      case 'reset':
        return this.withBox(name, ({ device }) =>
          this.do([{ kind: word, device }], word === 'reset' ? 'It is as it comes' : 'It started again'),
        );
      case 'sockets':
        return listed(this.look().sockets.map((id) => socketTitle(this.plan, id)));
      case 'sit': {
        const socket = this.look().sockets[Number(name) - 1];
        if (socket === undefined) return `“${name}” is no number of a place to sit; type: sockets`;
        return this.do([{ kind: 'sit', socket }], `The laptop is at ${socketTitle(this.plan, socket)}`);
      }
      case 'laptop':
        try {
          return this.do([laptopTyped(rest.join(' '))], 'The laptop has it');
        } catch (error) {
          return (error as Error).message;
        }
      default:
        return `“${word}” is no command; type: help`;
    }
  }

  private look = () => finish(this.practice.view());

  private next(text: string): string {
    const most = text === 'all' ? Infinity : text === '' ? 1 : Number(text);
    if (!(most >= 1)) return `“${text}” is no number of steps; type a number, or: next all`;
    const said: string[] = [];
    for (let done = 0; done < most; done++) {
      const { next } = this.look();
      if (!next) {
        said.push('Nothing is left to do.', this.boxes());
        break;
      }
      said.push(this.do(next.actions, next.says));
    }
    return said.join('\n');
  }

  private do(actions: readonly WireBenchAction[], says: string): string {
    for (const action of actions) {
      this.practice.do(action);
      const { refused, cut } = this.look();
      if (refused !== '') return `Not done. ${refused}`;
      if (cut.length > 0) return `${says}.\nNo answer any more: ${this.names(cut)}`;
    }
    return says;
  }

  private boxes(): string {
    const { boxes, seat, laptop } = this.look();
    const { plan } = this;
    const width = Math.max(...boxes.map(({ device }) => plan.device.get(device)!.name.length));
    const rows = boxes.map(({ device, shut, left, unsaved, apart }) =>
      [
        plan.device.get(device)!.name.padEnd(width),
        shut === '' ? 'answers  ' : 'no answer',
        `${left.length} left`.padStart(8),
        unsaved ? 'not saved' : '',
        apart ? 'cables not plugged in' : '',
      ]
        .join('  ')
        .trimEnd(),
    );
    const at = seat === null ? 'nowhere' : socketTitle(plan, seat);
    return [...rows, `Laptop at ${at}, ${laptop === '' ? 'with the address it is given' : laptop}`].join(
      '\n',
    );
  }

  private names = (devices: readonly string[]): string =>
    devices
      .map((id) => this.plan.device.get(id)!.name)
      .sort(byName)
      .join(', ');

  private withBox(name: string, say: (box: BenchBox) => string): string {
    const box = this.look().boxes.find(
      ({ device }) => this.plan.device.get(device)!.name.toLowerCase() === name.toLowerCase(),
    );
    return box ? say(box) : `“${name}” is no box that is set up; type: boxes`;
  }
}

const listed = (lines: readonly string[]): string =>
  lines.length === 0
    ? 'Nothing.'
    : lines.map((line, i) => `${String(i + 1).padStart(3)}  ${line}`).join('\n');
