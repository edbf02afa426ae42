/** A whole day's work, watched at the border to the system: nothing is sent, asked for by name, or written elsewhere. */
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { Library } from "../../bench/worst-day/library";
import { addFilm, exportAll, nothingAcknowledged, timeText } from "../../bench/worst-day/work";
import { LONG_WORK } from "../support/server";
import { canTrace, readCalls, type SystemCall, tracing } from "../support/system-calls";

const SENDING = ["connect", "sendto", "sendmsg", "sendmmsg"];
const OPENING = ["open", "openat", "openat2", "creat"];
const NAMING = ["rename", "renameat", "renameat2", "mkdir", "mkdirat", "link", "linkat", "symlink", "symlinkat"];

/** An address that is not this machine's; what is sent without one goes where a connection goes. */
const isElsewhere = ({ args }: SystemCall): boolean =>
  /sa_family=AF_(INET6?)/.test(args) && !/inet_addr\("127\.|inet_pton\(AF_INET6, "::1"/.test(args);
/** A name is looked up by these files and sockets, whatever comes of it. Node reads resolv.conf at its start by itself. */
const isLookUp = ({ args }: SystemCall): boolean =>
  /"\/etc\/(hosts|host\.conf|gai\.conf)"|nscd\/socket|systemd\/resolve|sin6?_port=htons\(53\)/.test(args);

test("nothing leaves the machine, and nothing is written beside the data folder and the temporary one", async () => {
  test.skip(!canTrace(), "no program can be watched here");
  const folder = mkdtempSync(join(tmpdir(), "glad-pan-watched-"));
  const log = join(folder, "calls.log");
  const [temporary, home] = [join(folder, "temporary"), join(folder, "home")];
  const library = new Library();
  const environment = { TMPDIR: temporary, HOME: home, XDG_CACHE_HOME: join(home, ".cache") };
  try {
    await library.server.start(environment, tracing([...SENDING, ...OPENING, ...NAMING], log));
    const done = nothingAcknowledged();
    await addFilm(library, done, "kite.mp4");
    const [film] = done.films;
    await expect.poll(() => library.isAnalysed(film!), { timeout: LONG_WORK }).toBe(true);
    await timeText(library, done, film!);
    await exportAll(library, done, film!);
    await expect.poll(library.isIdle, { timeout: LONG_WORK }).toBe(true);
    expect(library.jobs().map(({ kind, state }) => `${kind} ${state}`)).toEqual(
      expect.arrayContaining(["analyse done", "render done"]),
    );
    expect(await library.server.stop()).toBe(0);

    const calls = readCalls(log);
    const of = (names: readonly string[]) => calls.filter(({ name }) => names.includes(name));
    expect(of(OPENING).length).toBeGreaterThan(100);
    expect(of(SENDING).filter(isElsewhere)).toEqual([]);
    expect(calls.filter(isLookUp)).toEqual([]);
    const written = of(OPENING).filter(
      ({ name, args, result }) => (name === "creat" || /O_(WRONLY|RDWR|CREAT)/.test(args)) && /^\d/.test(result),
    );
    const isOurs = (path: string) =>
      [library.server.data, temporary, "/dev/"].some((ours) => path.startsWith(ours)) || path.startsWith("/proc/");
    const paths = written.map(({ result }) => /<(.*)>/.exec(result)![1]!);
    expect(paths.some((path) => path.startsWith(library.server.data))).toBe(true);
    expect(paths.filter((path) => !isOurs(path))).toEqual([]);
    const named = of(NAMING).filter(({ result }) => result === "0");
    expect(named.filter(({ args }) => [...args.matchAll(/"([^"]*)"/g)].some(([, path]) => !isOurs(path!)))).toEqual([]);
  } finally {
    await library.server.dispose();
    rmSync(folder, { recursive: true, force: true });
  }
});
