/** Names by which programs that draw without a graphics card call themselves. */
const SOFTWARE = /swiftshader|llvmpipe|software|basic render/i;

/** Whether pictures are drawn without a graphics card. What it was asked of is given back. */
export function bySoftware(ink: Pick<WebGL2RenderingContext, 'getExtension' | 'getParameter'>): boolean {
  const name = ink.getExtension('WEBGL_debug_renderer_info');
  const by: unknown = name ? ink.getParameter(name.UNMASKED_RENDERER_WEBGL) : '';
  ink.getExtension('WEBGL_lose_context')?.loseContext();
  return typeof by === 'string' && SOFTWARE.test(by);
}

/** The same, asked on the page itself: false where nothing is drawn at all. */
function askedHere(): boolean {
  const ink = document.createElement('canvas').getContext('webgl2');
  return ink ? bySoftware(ink) : false;
}

/** Asked of a worker, so that the page goes on meanwhile; on the page where a worker cannot say. */
function asked(): Promise<boolean> {
  return new Promise((answer) => {
    let worker: Worker;
    const end = (said: boolean | null): void => {
      worker.terminate();
      answer(said ?? askedHere());
    };
    try {
      worker = new Worker(new URL('../workers/draws.worker.ts', import.meta.url), { type: 'module' });
    } catch {
      answer(askedHere());
      return;
    }
    worker.onmessage = ({ data }: MessageEvent<boolean | null>) => end(data);
    worker.onerror = () => end(null);
  });
}

let answer: Promise<boolean> | null = null;
/** Whether pictures are drawn without a graphics card: then smooth edges cost more than they give. Asked once. */
export const drawnBySoftware = (): Promise<boolean> => (answer ??= asked());
