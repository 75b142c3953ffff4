import { Canvas, useFrame, useThree, type ThreeEvent } from '@react-three/fiber';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import * as THREE from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { Person } from '@nestplank/core/document';
import { followed, rigidOf, type Goes, type PlacedRun } from '@nestplank/core/furniture';
import { jointLines, type Lining } from '@nestplank/core/lining';
import type { Point } from '@nestplank/core/numeric';
import { sectionOf } from '@nestplank/core/parts';
import {
  placedOpenings,
  type Reveal,
  revealsOf,
  roofHeight,
  sectionAcross,
  skinsOf,
  type Shell,
  type Skin,
} from '@nestplank/core/shell';
import { softAt, type PetLain, type Soft } from '@nestplank/core/layout';
import {
  blockGeometry,
  flatGeometry,
  furnitureIn,
  inkedEdges,
  lineGeometry,
  matrixOf,
  middleOf,
  revealGeometry,
  skinGeometry,
  softsOf,
  tubeGeometry,
} from '@nestplank/solids';
import type { Scene } from '../state/scene.js';
import { COLOURS } from '../theme.js';
import type { ThemeName } from '../state/view.js';
import { useSpeech } from '../words/use-speech.js';
import { animalLimbs, somebodyLimbs } from './bodies.js';
import { Limbs } from './Limbs.js';
import { drawnBySoftware } from './by-software.js';
import { useCoarser } from './coarse.js';
import { facesEye, lookOf, nodded, type Eyes } from './eyes.js';
import { inksFor, type Inks } from './inks.js';
import { liningPiecesOf, piecesOf, type LiningPiece, type Piece } from './pieces.js';

// the renderer's own clock is an older one than its library now has: it says so at every opening, and nothing else does
THREE.setConsoleFunction((level, text, ...rest: readonly unknown[]) => {
  // eslint-disable-next-line no-console
  if (!text.includes('THREE.Clock')) console[level](text, ...rest);
});

/** A change of mode is shown so long, ms. */
const MOVES_MS = 230;
/** How far parts come apart at most, as a share of their way from the middle of their unit. */
const APART = 0.9;
const STILL = new THREE.Matrix4();

export interface RoomView {
  readonly scene: Scene;
  readonly theme: ThemeName;
  /** How far each moving part is moved, by its name. */
  readonly states: Readonly<Record<string, number>>;
  /** Where one looks from; null from outside. */
  readonly eyes: Eyes | null;
  /** Somebody who stands in it, seen from outside. */
  readonly stands: { readonly person: Person; readonly at: Point } | null;
  /** The animals where they lie. */
  readonly animals: readonly PetLain[];
  readonly chosen: string | null;
  /** How far the chosen unit is taken apart, 0 to 1. */
  readonly apart: number;
  /** The boards of the lining are drawn too. */
  readonly lined: boolean;
  /** Where it is cut away across, and which half stays; null where it is whole. */
  readonly cut: { readonly x: number; readonly keeps: 'rear' | 'front' } | null;
  readonly onUnit: (unit: string) => void;
  readonly onMove: (motion: string) => void;
  readonly onLook: (turn: number, nod: number) => void;
}

/** Draws again whenever something other than the camera has changed. */
function Redraw({ on }: { readonly on: unknown }) {
  const invalidate = useThree((state) => state.invalidate);
  useEffect(() => invalidate(), [on, invalidate]);
  return null;
}

/** Everything before a plane across the vehicle is left out. */
function Cut({ cut }: { readonly cut: RoomView['cut'] }) {
  const gl = useThree((state) => state.gl);
  useLayoutEffect(() => {
    const keeps = cut?.keeps === 'front' ? -1 : 1;
    gl.clippingPlanes = cut ? [new THREE.Plane(new THREE.Vector3(keeps, 0, 0), -keeps * cut.x)] : [];
    return () => {
      gl.clippingPlanes = [];
    };
  }, [cut, gl]);
  return null;
}

/** The vehicle from outside, turned about its middle by the pointer, by the arrows and nearer by + and -. */
function FromOutside({ room, software }: { readonly room: Shell; readonly software: boolean }) {
  const coarser = useCoarser(software);
  const { camera, gl, invalidate } = useThree();
  useLayoutEffect(() => {
    const middle = new THREE.Vector3((room.start + room.length) / 2, 0, room.floor + 700);
    const far = (room.length - room.start) * 0.85 + 1700;
    camera.up.set(0, 0, 1);
    camera.position.copy(middle).add(new THREE.Vector3(-0.42, -0.66, 0.62).multiplyScalar(far));
    const controls = new OrbitControls(camera, gl.domElement);
    controls.target.copy(middle);
    controls.enableDamping = false;
    controls.minDistance = 900;
    controls.maxDistance = 4 * far;
    controls.update();
    controls.addEventListener('change', () => {
      coarser();
      invalidate();
    });
    const holder = gl.domElement.closest<HTMLElement>('[data-room]');
    const onKey = (event: KeyboardEvent): void => {
      const turn = { ArrowLeft: [0.1, 0], ArrowRight: [-0.1, 0], ArrowUp: [0, -0.1], ArrowDown: [0, 0.1] }[event.key];
      const nearer = { '+': 0.9, '=': 0.9, '-': 1.1 }[event.key];
      if (!turn && nearer === undefined) return;
      event.preventDefault();
      event.stopPropagation();
      const from = camera.position.clone().sub(controls.target);
      // about the upright axis of the vehicle
      const round = Math.atan2(from.y, from.x) - (turn?.[0] ?? 0);
      const length = from.length() * (nearer ?? 1);
      const over = Math.min(1.5, Math.max(-0.2, Math.asin(from.z / from.length()) - (turn?.[1] ?? 0)));
      camera.position
        .set(Math.cos(round) * Math.cos(over), Math.sin(round) * Math.cos(over), Math.sin(over))
        .multiplyScalar(length)
        .add(controls.target);
      controls.update();
      invalidate();
    };
    holder?.addEventListener('keydown', onKey);
    invalidate();
    return () => {
      holder?.removeEventListener('keydown', onKey);
      controls.dispose();
    };
  }, [room, camera, gl, invalidate, coarser]);
  return null;
}

/** One looks with somebody's eyes; drawing with the pointer turns the head. */
function Inside({
  eyes,
  onLook,
  software,
}: {
  readonly eyes: Eyes;
  readonly onLook: RoomView['onLook'];
  readonly software: boolean;
}) {
  const coarser = useCoarser(software);
  const { camera, gl, invalidate } = useThree();
  const now = useRef(eyes);
  useLayoutEffect(() => {
    now.current = eyes;
    camera.up.set(0, 0, 1);
    camera.position.set(...eyes.at);
    const [x, y, z] = lookOf(eyes);
    camera.lookAt(eyes.at[0] + x, eyes.at[1] + y, eyes.at[2] + z);
    coarser();
    invalidate();
  }, [eyes, camera, invalidate, coarser]);
  useEffect(() => {
    const place = gl.domElement;
    let held: readonly [number, number] | null = null;
    const down = (event: PointerEvent): void => {
      held = [event.clientX, event.clientY];
    };
    const move = (event: PointerEvent): void => {
      if (!held) return;
      const [dx, dy] = [event.clientX - held[0], event.clientY - held[1]];
      held = [event.clientX, event.clientY];
      onLook(now.current.turn + dx * 0.004, nodded(now.current.nod + dy * 0.004));
    };
    const up = (): void => {
      held = null;
    };
    place.addEventListener('pointerdown', down);
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
    return () => {
      place.removeEventListener('pointerdown', down);
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
    };
  }, [gl, onLook]);
  return null;
}

/** The vehicle itself: its faces look inward, so that from outside one sees into it. */
function Vehicle({
  skins,
  room,
  inks,
}: {
  readonly skins: readonly Skin[];
  readonly room: Shell;
  readonly inks: Inks;
}) {
  const drawn = useMemo(() => {
    const inside = (x: number): THREE.Vector3 =>
      new THREE.Vector3(
        Math.min(Math.max(x, room.start + 50), room.length - 50),
        0,
        (room.floor + roofHeight(room, x, 0)) / 2,
      );
    const walls = skins.filter(({ surface }) => surface !== 'floor').flatMap(({ closed }) => closed);
    const floor = skins.filter(({ surface }) => surface === 'floor').flatMap(({ closed }) => closed);
    const open = (door: boolean) =>
      skins.flatMap(({ clear }) =>
        clear.flatMap(({ opening, facets }) => ((opening.kind === 'door') === door ? facets : [])),
      );
    const frames = [room.start, room.length].map((x) => {
      const ring = sectionAcross(room, x);
      return [...ring, ...ring.slice(0, 1)].map(([y, z]) => [x, y, z] as const);
    });
    return {
      walls: skinGeometry(walls, inside),
      floor: skinGeometry(floor, inside),
      leaf: skinGeometry(open(true), inside),
      clear: skinGeometry(open(false), inside),
      lines: lineGeometry([...frames, ...skins.flatMap(({ outlines }) => outlines)]),
    };
  }, [skins, room]);
  return (
    <group>
      <mesh geometry={drawn.walls} material={inks.paper} />
      <mesh geometry={drawn.floor} material={inks.floor} />
      <mesh geometry={drawn.leaf} material={inks.leaf} />
      <mesh geometry={drawn.clear} material={inks.glass} renderOrder={2} />
      <lineSegments geometry={drawn.lines} material={inks.line} />
    </group>
  );
}

/** How thick everything between metal and lining is, where an opening cuts through it. */
function Thickness({ reveals, inks }: { readonly reveals: readonly Reveal[]; readonly inks: Inks }) {
  const drawn = useMemo(
    () => ({ faces: reveals.map(revealGeometry), lines: lineGeometry(reveals.map(({ behind }) => behind)) }),
    [reveals],
  );
  useEffect(
    () => () => {
      for (const geometry of [...drawn.faces, drawn.lines]) geometry.dispose();
    },
    [drawn],
  );
  return (
    <group>
      {drawn.faces.map((geometry, i) => (
        <mesh key={i} geometry={geometry} material={inks.edge} />
      ))}
      <lineSegments geometry={drawn.lines} material={inks.joint} />
    </group>
  );
}

/** Mattresses and cushions where they lie; what moves under one has it taken off. */
function Softs({
  softs,
  view,
  inks,
}: {
  readonly softs: readonly Soft[];
  readonly view: RoomView;
  readonly inks: Inks;
}) {
  const { states, chosen, apart, onUnit } = view;
  const drawn = useMemo(
    () =>
      softs.flatMap((soft) =>
        softAt(soft, states).map((box, i) => {
          const body = blockGeometry(box);
          return { key: `${soft.id}.${i}`, soft, body, edges: inkedEdges(body) };
        }),
      ),
    [softs, states],
  );
  useEffect(
    () => () => {
      for (const { body, edges } of drawn) {
        body.dispose();
        edges.dispose();
      }
    },
    [drawn],
  );
  return drawn
    .filter(({ soft }) => !(apart > 0 && soft.unit === chosen))
    .map(({ key, soft, body, edges }) => (
      <group key={key}>
        <mesh
          geometry={body}
          material={inks.material('wool')}
          onClick={(event) => {
            if (event.delta > 4) return;
            event.stopPropagation();
            onUnit(soft.unit);
          }}
        />
        <lineSegments geometry={edges} material={soft.unit === chosen ? inks.chosen : inks.line} />
      </group>
    ));
}

/** The joints of a lining, where one looks at its face: from outside one sees through what is nearer. */
function Joints({ lining, room, inks }: { readonly lining: Lining; readonly room: Shell; readonly inks: Inks }) {
  const lines = useRef<THREE.LineSegments>(null);
  const geometry = useMemo(() => lineGeometry(jointLines(lining, room)), [lining, room]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  useFrame(({ camera }) => {
    if (lines.current) lines.current.visible = facesEye(lining.surface, camera.position, room);
  });
  return <lineSegments ref={lines} geometry={geometry} material={inks.joint} />;
}

/** Boards of the lining on one surface, where one looks at their face: from outside one sees past what is nearer. */
function LiningBoards({
  piece,
  room,
  inks,
}: {
  readonly piece: LiningPiece;
  readonly room: Shell;
  readonly inks: Inks;
}) {
  const group = useRef<THREE.Group>(null);
  useFrame(({ camera }) => {
    if (group.current) group.current.visible = !piece.surface || facesEye(piece.surface, camera.position, room);
  });
  return (
    <group ref={group}>
      <mesh geometry={piece.body} material={inks.material(piece.hatch)} />
      <lineSegments geometry={piece.edges} material={inks.line} />
    </group>
  );
}

/** A body that is moved by its motion, and comes there within a moment. */
function Moving({
  motion,
  off,
  share,
  children,
}: Goes & {
  readonly share: number;
  readonly children: React.ReactNode;
}) {
  const group = useRef<THREE.Group>(null);
  const at = useRef(share);
  const invalidate = useThree((state) => state.invalidate);
  const place = (to: number): void => {
    const held = group.current;
    if (!held) return;
    const rigid = off && to > 0 ? null : rigidOf(motion, to);
    held.visible = rigid !== null;
    held.matrix.copy(rigid ? matrixOf(rigid) : STILL);
    held.matrixWorldNeedsUpdate = true;
  };
  useLayoutEffect(() => {
    if (window.matchMedia('(prefers-reduced-motion: reduce)').matches) at.current = share;
    place(at.current);
    invalidate();
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [motion, off, share]);
  useFrame((_, delta) => {
    if (at.current === share) return;
    const by = Math.min(delta, 0.05) / (MOVES_MS / 1000);
    const left = share - at.current;
    at.current = Math.abs(left) <= by ? share : at.current + Math.sign(left) * by;
    place(at.current);
    invalidate();
  });
  return (
    <group ref={group} matrixAutoUpdate={false}>
      {children}
    </group>
  );
}

/** Everything that is made; a unit is chosen by a press, a part that moves is opened or shut by one. */
function Pieces({
  pieces,
  inks,
  view,
}: {
  readonly pieces: readonly Piece[];
  readonly inks: Inks;
  readonly view: RoomView;
}) {
  const { states, chosen, apart, onUnit, onMove } = view;
  const middles = useMemo(() => {
    const of = new Map(pieces.map((piece) => [piece.id, middleOf(piece.body)]));
    const own = pieces.filter(({ unit }) => unit === chosen);
    const middle = new THREE.Vector3();
    for (const { id } of own) middle.addScaledVector(of.get(id) ?? middle, 1 / own.length);
    return { of, middle };
  }, [pieces, chosen]);
  const press = (piece: Piece) => (event: ThreeEvent<MouseEvent>) => {
    // what was drawn with the pointer was no press
    if (event.delta > 4) return;
    event.stopPropagation();
    const [first] = piece.moves;
    if (first && piece.unit === chosen) onMove(first.motion.of);
    else if (piece.unit !== null) onUnit(piece.unit);
  };
  return pieces.map((piece) => {
    const away =
      apart > 0 && piece.unit === chosen
        ? (middles.of.get(piece.id) ?? middles.middle)
            .clone()
            .sub(middles.middle)
            .multiplyScalar(apart * APART)
        : null;
    const drawn = (
      <group position={away ?? [0, 0, 0]}>
        <mesh geometry={piece.body} material={inks.material(piece.hatch)} onClick={press(piece)} />
        <lineSegments geometry={piece.edges} material={piece.unit === chosen ? inks.chosen : inks.line} />
      </group>
    );
    const goes = followed(piece.moves, states);
    return goes ? (
      <Moving key={piece.id} {...goes} share={states[goes.motion.of] ?? 0}>
        {drawn}
      </Moving>
    ) : (
      <group key={piece.id}>{drawn}</group>
    );
  });
}

/** Cables, pipes and ducts where they lie, seen once what they lie in is opened or taken apart. */
function Tubes({ runs, inks }: { readonly runs: readonly PlacedRun[]; readonly inks: Inks }) {
  const bodies = useMemo(
    () =>
      runs.flatMap((placed) => {
        const body = tubeGeometry(placed);
        return body ? [{ id: placed.run.id, body }] : [];
      }),
    [runs],
  );
  useEffect(
    () => () => {
      for (const { body } of bodies) body.dispose();
    },
    [bodies],
  );
  return bodies.map(({ id, body }) => <mesh key={id} geometry={body} material={inks.material('grey')} />);
}

/** What the slice goes through: the vehicle between metal and lining, and the true sections of the parts. */
function Sections({
  scene,
  cut,
  inks,
}: {
  readonly scene: Scene;
  readonly cut: NonNullable<RoomView['cut']>;
  readonly inks: Inks;
}) {
  const { shape, room } = scene;
  const drawn = useMemo(() => {
    const outer = shape.shell && sectionAcross(shape.shell, cut.x);
    const inner = room && room !== shape.shell ? sectionAcross(room, cut.x) : null;
    const parts = furnitureIn(shape).flatMap((part) => sectionOf(part, cut.x));
    return flatGeometry([...(outer && inner ? [{ outer, holes: [inner] }] : []), ...parts]);
  }, [shape, room, cut.x]);
  // a hair on the side that stays, else it would be cut away with the rest
  const x = cut.x + (cut.keeps === 'rear' ? 0.5 : -0.5);
  const matrix = useMemo(
    () =>
      new THREE.Matrix4()
        .makeBasis(new THREE.Vector3(0, 1, 0), new THREE.Vector3(0, 0, 1), new THREE.Vector3(1, 0, 0))
        .setPosition(x, 0, 0),
    [x],
  );
  return <mesh geometry={drawn} material={inks.cut} matrix={matrix} matrixAutoUpdate={false} />;
}

/** The room in the round: what is drawn, and from where it is looked at. */
export default function RoomDrawing(view: RoomView) {
  const { scene, theme, eyes, stands, animals, chosen, apart, cut, lined } = view;
  const { room, shape, book, project } = scene;
  const { t } = useSpeech();
  // the room is made ready while it is asked
  const [software, setSoftware] = useState<boolean | null>(null);
  useEffect(() => void drawnBySoftware().then(setSoftware), []);
  const colours = COLOURS[theme];
  const inks = useMemo(() => inksFor(colours), [colours]);
  useEffect(() => () => inks.dispose(), [inks]);
  const openings = useMemo(() => placedOpenings(project.survey), [project.survey]);
  const skins = useMemo(() => (room ? skinsOf(room, openings) : []), [room, openings]);
  const reveals = useMemo(
    () => (room && shape.shell && room !== shape.shell ? revealsOf(room, shape.shell, openings) : []),
    [room, shape.shell, openings],
  );
  const softs = useMemo(() => softsOf(scene), [scene]);
  const bodies = useMemo(
    () => [
      ...(stands && !eyes && room ? [somebodyLimbs(stands.person, [...stands.at, room.floor])] : []),
      ...animals.map(animalLimbs),
    ],
    [stands, eyes, room, animals],
  );
  const taken = apart > 0 ? chosen : null;
  const pieces = useMemo(() => piecesOf(shape, book, taken), [shape, book, taken]);
  useEffect(
    () => () => {
      for (const { body, edges } of pieces) {
        body.dispose();
        edges.dispose();
      }
    },
    [pieces],
  );
  const boards = useMemo(() => (lined ? liningPiecesOf(shape, book) : []), [lined, shape, book]);
  useEffect(
    () => () => {
      for (const { body, edges } of boards) {
        body.dispose();
        edges.dispose();
      }
    },
    [boards],
  );
  if (!room) return null;
  if (software === null) return <p className="soft">{t('room.opening')}</p>;
  return (
    <Canvas
      flat
      frameloop="demand"
      dpr={[1, 2]}
      gl={{ antialias: !software }}
      camera={{ fov: eyes ? 74 : 38, near: 30, far: 60_000 }}
      // its own field of view for each way of looking
      key={eyes ? 'inside' : 'outside'}
      style={{ background: colours.ground }}
    >
      <hemisphereLight args={['#ffffff', '#d9dcd8', 2.7]} position={[0, 0, 1]} />
      <directionalLight position={[-2, -3, 5]} intensity={0.5} />
      <Redraw on={view} />
      <Cut cut={cut} />
      {eyes ? (
        <Inside eyes={eyes} onLook={view.onLook} software={software} />
      ) : (
        <FromOutside room={room} software={software} />
      )}
      <Vehicle skins={skins} room={room} inks={inks} />
      <Thickness reveals={reveals} inks={inks} />
      {scene.derived.lined.linings.map((lining) => (
        <Joints key={lining.surface} lining={lining} room={room} inks={inks} />
      ))}
      {boards.map((piece) => (
        <LiningBoards key={piece.id} piece={piece} room={room} inks={inks} />
      ))}
      <Pieces pieces={pieces} inks={inks} view={view} />
      <Softs softs={softs} view={view} inks={inks} />
      <Tubes runs={shape.runs.placed} inks={inks} />
      {cut && <Sections scene={scene} cut={cut} inks={inks} />}
      {bodies.map((limbs, i) => (
        <Limbs key={i} limbs={limbs} inks={inks} />
      ))}
    </Canvas>
  );
}
