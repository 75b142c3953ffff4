import './home.css';
import { Problem } from '../kit/Problem.js';
import ToggleButton from '@mui/material/ToggleButton';
import { useEffect, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { ProjectListItem } from '@nestplank/contract';
import type { VehicleMeasures } from '@nestplank/core/derive';
import { api, RefusedError } from '../state/api.js';
import { speechFor, tell } from '../words/words.js';

/** So many are shown at first, and at most. */
const FIRST = 4;
const MOST = 8;

const LENGTHS = [
  'length',
  'standing',
  'widthAtFloor',
  'widthAtBed',
  'betweenArches',
  'straightness',
  'lean',
  'ribDepth',
  'step',
] as const;

/** Vehicles side by side on net measures, each in its own units. */
export function CompareVehicles() {
  const [projects, setProjects] = useState<readonly ProjectListItem[]>([]);
  const [vehicles, setVehicles] = useState<readonly VehicleMeasures[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [params, setParams] = useSearchParams();
  const asked = params.get('ids');
  const failed = (reason: unknown): void =>
    setProblem(reason instanceof RefusedError ? reason.message : tell('home.failed'));
  useEffect(() => {
    document.title = `${tell('vehicles.title')} · ${tell('app.name')}`;
    api.list().then(setProjects, failed);
  }, []);
  const ids = asked === null ? projects.slice(0, FIRST).map((project) => project.id) : asked.split(',').filter(Boolean);
  const key = ids.join(',');
  useEffect(() => {
    if (key === '') {
      setVehicles([]);
      return;
    }
    setProblem(null);
    api.compare(key.split(',')).then(setVehicles, failed);
  }, [key]);
  const toggle = (id: string): void => {
    const next = ids.includes(id) ? ids.filter((other) => other !== id) : [...ids, id].slice(-MOST);
    setParams({ ids: next.join(',') }, { replace: true });
  };
  // side by side means in one system: the first vehicle's, until the other is chosen
  const [chosen, setUnits] = useState<'mm' | 'in' | null>(null);
  const units = chosen ?? vehicles?.[0]?.units ?? 'mm';
  const measured = (vehicles ?? []).filter((vehicle) => vehicle.length !== null);
  const show = (vehicle: VehicleMeasures, key: (typeof LENGTHS)[number]): string => {
    const value = vehicle[key];
    return value === null ? '–' : speechFor({ units, fraction: 16 }).lenUnit(value);
  };
  return (
    <main className="home wide">
      <p>
        <Link to="/">{tell('bar.home')}</Link>
      </p>
      <h1>{tell('vehicles.title')}</h1>
      <p className="soft">{tell('vehicles.hint')}</p>
      {problem && <Problem>{problem}</Problem>}
      <div className="chips below" role="group" aria-label={tell('vehicles.choose')}>
        {projects.map((project) => (
          <ToggleButton
            key={project.id}
            value={project.id}
            size="small"
            selected={ids.includes(project.id)}
            onChange={() => toggle(project.id)}
          >
            {project.name}
          </ToggleButton>
        ))}
      </div>
      {measured.length > 0 && (
        <div className="row wrap below" role="group" aria-label={tell('bar.units')}>
          {(['mm', 'in'] as const).map((system) => (
            <ToggleButton
              key={system}
              value={system}
              size="small"
              selected={units === system}
              onChange={() => setUnits(system)}
            >
              {tell(`units.${system}`)}
            </ToggleButton>
          ))}
        </div>
      )}
      {vehicles && measured.length === 0 && <p className="empty">{tell('vehicles.none')}</p>}
      {measured.length > 0 && (
        <div className="scrolls below" tabIndex={0} role="region" aria-label={tell('vehicles.title')}>
          <table className="plain">
            <thead>
              <tr>
                <th />
                {measured.map((vehicle) => (
                  <th key={vehicle.id} className="number" scope="col">
                    <Link className="size-16" to={`/build/${vehicle.id}/measure`}>
                      {vehicle.name}
                    </Link>
                    <br />
                    {vehicle.model} · {tell(`kind.${vehicle.kind}`)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {LENGTHS.map((key) => (
                <tr key={key}>
                  <th scope="row">{tell(`vehicles.${key}`)}</th>
                  {measured.map((vehicle) => (
                    <td key={vehicle.id} className="number size-17">
                      {show(vehicle, key)}
                    </td>
                  ))}
                </tr>
              ))}
              <tr>
                <th scope="row">{tell('vehicles.volume')}</th>
                {measured.map((vehicle) => (
                  <td key={vehicle.id} className="number">
                    {vehicle.volume?.toFixed(1) ?? '–'}
                  </td>
                ))}
              </tr>
              <tr>
                <th scope="row">{tell('vehicles.readings')}</th>
                {measured.map((vehicle) => (
                  <td key={vehicle.id} className="number">
                    {vehicle.readings}
                  </td>
                ))}
              </tr>
            </tbody>
          </table>
        </div>
      )}
    </main>
  );
}
