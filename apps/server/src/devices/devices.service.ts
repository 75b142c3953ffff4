import { HttpStatus, Injectable } from '@nestjs/common';
import { Observable, Subject, startWith } from 'rxjs';
import type { ConnectDto, InstrumentKind, InstrumentMessage, InstrumentState } from '@nestplank/contract';
import { parseAddress, unitOf } from '@nestplank/core/document';
import { hiddenShape, simulatedInstrument, trueValue } from '@nestplank/core/practice';
import { ProjectsService } from '../projects/projects.service.js';
import { notFound, RefusedError } from '../refusals.js';

/** One linked instrument with everybody who listens to it. */
interface Link {
  readonly kind: InstrumentKind;
  readonly instrument: ReturnType<typeof simulatedInstrument>;
  readonly messages: Subject<InstrumentMessage>;
}

/** A beam takes this long to come back, ms. */
const MEASURING_MS = 250;

/** Simulated instruments for practice vehicles. A real instrument would answer the same calls with the same messages. */
@Injectable()
export class DevicesService {
  private readonly links = new Map<string, Link>();

  constructor(private readonly projects: ProjectsService) {}

  private state({ kind, instrument }: Link): InstrumentState {
    const { battery, low, linked } = instrument.charge();
    return { kind, battery, low, state: battery <= 0 ? 'off' : linked ? 'linked' : 'lost' };
  }

  private link(projectId: string, kind: InstrumentKind): Link {
    const link = this.links.get(`${projectId}/${kind}`);
    if (!link) throw notFound('linked instrument', kind);
    return link;
  }

  private tell(link: Link): InstrumentState {
    const state = this.state(link);
    link.messages.next({ type: 'state', ...state });
    return state;
  }

  /** Links an instrument, or links it again after the link was lost; an empty battery is changed by that. */
  async connect(projectId: string, kind: InstrumentKind, options: ConnectDto): Promise<InstrumentState> {
    const { project } = await this.projects.view(projectId);
    if (!project.practice)
      throw new RefusedError(
        HttpStatus.UNPROCESSABLE_ENTITY,
        'operation',
        'The simulated instruments read practice vehicles only; this is a real one. Use the tape, or start a practice.',
      );
    const key = `${projectId}/${kind}`;
    const known = this.links.get(key);
    if (known && options.battery === undefined && options.faults === undefined) {
      known.instrument.relink();
      return this.tell(known);
    }
    const link: Link = {
      kind,
      instrument: simulatedInstrument(kind, project.practice.seed + 17, options.faults ?? 1, options.battery ?? 100),
      messages: known?.messages ?? new Subject(),
    };
    this.links.set(key, link);
    return this.tell(link);
  }

  /** Points the instrument at a place and clicks; what comes of it is told on the stream. */
  async click(projectId: string, kind: InstrumentKind, address: string): Promise<void> {
    const link = this.link(projectId, kind);
    const place = parseAddress(address);
    if (!place || (unitOf(place) === 'degrees') !== (kind === 'angle-finder'))
      throw new RefusedError(
        HttpStatus.BAD_REQUEST,
        'invalid',
        `A ${kind === 'laser' ? 'laser' : 'angle finder'} cannot read ${address}.`,
        { place: 'address' },
      );
    const { project } = await this.projects.view(projectId);
    const truth = project.practice ? trueValue(hiddenShape(project.practice), project.survey, address) : null;
    link.messages.next({ type: 'state', ...this.state(link), state: 'measuring' });
    setTimeout(() => {
      const click = link.instrument.click(truth);
      link.messages.next(
        click.kind === 'reading'
          ? { type: 'reading', address, value: click.value, unit: unitOf(place), at: new Date().toISOString() }
          : { type: 'missed', address, why: click.why },
      );
      this.tell(link);
    }, MEASURING_MS).unref();
  }

  disconnect(projectId: string, kind: InstrumentKind): void {
    const link = this.links.get(`${projectId}/${kind}`);
    if (!link) return;
    this.links.delete(`${projectId}/${kind}`);
    link.messages.next({ type: 'state', ...this.state(link), state: 'off' });
    link.messages.complete();
  }

  stream(projectId: string, kind: InstrumentKind): Observable<InstrumentMessage> {
    const link = this.link(projectId, kind);
    return link.messages.pipe(startWith<InstrumentMessage>({ type: 'state', ...this.state(link) }));
  }
}
