/** Another name of this machine, as a tablet on the bench would ask it: plain, without a certificate. */
export const OTHER_NAME = 'cold-van.test';
/** How Debian's Chromium is started: without a sandbox, a network of its own or a graphics card. */
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-quic',
    '--no-first-run',
    `--host-resolver-rules=MAP ${OTHER_NAME} 127.0.0.1`,
  ],
};
/** What draws nothing in three dimensions paints pages faster without any of it. */
export const FLAT = ['--disable-gpu'];
export const IN_THE_ROUND = ['--use-angle=swiftshader', '--enable-unsafe-swiftshader'];
