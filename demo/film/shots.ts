/** The shots of "Ferrow Kite Day", in order. Everybody and everything in it is made up. */
import { drawBust, drawFigure, PEOPLE } from "./people";
import { ramp, wander } from "./random";
import { drawBench, drawClouds, drawKite, drawLine, drawSky, EVENING, NOON } from "./scenery";
import {
  bigClouds,
  blinkAt,
  eveningClouds,
  eveningLand,
  HORIZON,
  longLand,
  lowerThird,
  MARGIN,
  meadow,
  noonClouds,
  noonLand,
  talking,
  workshop,
} from "./sets";
import {
  type Camera,
  finish,
  FIXED,
  HEIGHT,
  RATE,
  type Seen,
  seenBox,
  seePerson,
  type Shot,
  through,
  WIDTH,
} from "./stage";

/** How far a person's mouth is open at a frame of the shot. */
export type Mouth = (person: string, shot: string, frame: number) => number;

function titleCard(): Shot {
  return {
    name: "title",
    frames: 84,
    transition: "cut",
    overlap: 0,
    titles: [{ from: 0, to: 84, box: [150, 400, 1620, 300] }],
    draw(g, frame) {
      const camera: Camera = { ...FIXED, zoom: 1.04 + frame * 0.0004, y: HEIGHT / 2 - 40 };
      meadow(g, camera, NOON, noonLand, noonClouds, frame / RATE);
      g.fillStyle = "rgba(16,26,40,0.34)";
      g.fillRect(0, 0, WIDTH, HEIGHT);
      g.textAlign = "center";
      g.fillStyle = "#fffaf0";
      g.font = "bold 168px 'DejaVu Serif'";
      g.fillText("Ferrow Kite Day", WIDTH / 2, 560, 1600);
      g.font = "54px 'DejaVu Sans'";
      g.fillText("an afternoon above the salt meadows", WIDTH / 2, 660);
      g.textAlign = "left";
      finish(g, NOON.sun);
      return { people: [], objects: [] };
    },
  };
}

function presenter(mouth: Mouth): Shot {
  return {
    name: "presenter",
    frames: 216,
    transition: "cut",
    overlap: 0,
    titles: [{ from: 20, to: 140, box: [130, 850, 620, 128] }],
    draw(g, frame) {
      const seconds = frame / RATE;
      const seen: Seen = { people: [], objects: [] };
      const camera: Camera = { ...FIXED, x: WIDTH / 2 + wander(seconds * 0.4, 3) * 4, zoom: 1 + frame * 0.00012 };
      g.filter = "blur(2px)";
      meadow(g, camera, NOON, noonLand, noonClouds, seconds);
      g.filter = "none";
      through(g, camera, 0.6, () => {
        const box = drawKite(
          g,
          1480 + wander(seconds * 0.5, 1) * 40,
          250 + wander(seconds * 0.7, 2) * 24,
          46,
          0.35 + wander(seconds, 5) * 0.1,
          "#c9503f",
          "#efe3c6",
          seconds,
        );
        seen.objects.push({ id: "far-kite", box });
      });
      through(g, camera, 1, () => {
        const pose = talking(seconds, mouth("nela", "presenter", frame), 1);
        const boxes = drawBust(
          g,
          600 + wander(seconds * 0.5, 9) * 9,
          440 + wander(seconds * 0.9, 2) * 4,
          290,
          PEOPLE.nela,
          { ...pose, yaw: (pose.yaw ?? 0) + 0.12 },
        );
        seePerson(seen, camera, "nela", boxes);
      });
      lowerThird(g, frame, 20, 140, "Nela Orbin", "Ferrow Kite Society");
      finish(g, NOON.sun);
      return seen;
    },
  };
}

function makers(mouth: Mouth): Shot {
  return {
    name: "makers",
    frames: 300,
    transition: "cut",
    overlap: 0,
    draw(g, frame) {
      const seconds = frame / RATE;
      const seen: Seen = { people: [], objects: [] };
      const camera: Camera = { ...FIXED, x: WIDTH / 2 + wander(seconds * 0.3, 8) * 5 };
      through(g, camera, 0.5, () => g.drawImage(workshop(), -200, -60));
      through(g, camera, 1, () => {
        for (const [person, x, seed, turn] of [
          [PEOPLE.bram, 500, 2, 0.3],
          [PEOPLE.ilse, 1420, 6, -0.3],
        ] as const) {
          const pose = talking(seconds, mouth(person.id, "makers", frame), seed);
          const boxes = drawBust(
            g,
            x + wander(seconds * 0.6, seed) * 12,
            430 + wander(seconds * 0.8, seed + 1) * 6,
            215,
            person,
            { ...pose, yaw: turn + (pose.yaw ?? 0) * 0.6 },
          );
          seePerson(seen, camera, person.id, boxes);
        }
        drawBench(g, -200, WIDTH + 200, 830);
        drawKite(g, 960, 880, 130, 1.45 + wander(seconds * 0.4, 4) * 0.03, "#2f8a8f", "#efe3c6", 0);
      });
      finish(g, "rgba(255,236,200,0.45)", 0.5);
      return seen;
    },
  };
}

function closeUp(mouth: Mouth): Shot {
  return {
    name: "close-up",
    frames: 105,
    transition: "cut",
    overlap: 0,
    draw(g, frame) {
      const seconds = frame / RATE;
      const seen: Seen = { people: [], objects: [] };
      const camera: Camera = { ...FIXED, zoom: 1 + frame * 0.0006 };
      g.filter = "blur(10px)";
      through(g, { ...camera, zoom: 1.6 }, 1, () => g.drawImage(workshop(), -420, -120));
      g.filter = "none";
      through(g, camera, 1, () => {
        const pose = talking(seconds, mouth("ilse", "close-up", frame), 6);
        seePerson(
          seen,
          camera,
          "ilse",
          drawBust(g, 1180 + wander(seconds * 0.5, 4) * 10, 500, 560, PEOPLE.ilse, {
            ...pose,
            yaw: -0.25 + (pose.yaw ?? 0) * 0.5,
          }),
        );
      });
      finish(g, "rgba(255,232,200,0.5)", 0.55);
      return seen;
    },
  };
}

function runner(): Shot {
  return {
    name: "runner",
    frames: 96,
    transition: "cut",
    overlap: 0,
    blurSamples: 3,
    draw(g, frame) {
      const seconds = frame / RATE;
      const seen: Seen = { people: [], objects: [] };
      meadow(g, FIXED, NOON, noonLand, noonClouds, seconds);
      through(g, FIXED, 1, () => {
        const x = -120 + (frame - 8) * 27;
        const kite: [number, number] = [x - 300 + wander(seconds, 2) * 20, 190 + wander(seconds * 1.6, 6) * 30];
        const boxes = drawFigure(g, x, 1010, 620, PEOPLE.teo, {
          step: seconds * 10,
          stride: 1.9,
          facing: 1,
          rightArm: 0.75,
          yaw: 0.5,
        });
        drawLine(g, boxes.hand, kite);
        const box = drawKite(g, ...kite, 95, 0.5 + wander(seconds * 2, 3) * 0.15, "#d9a43b", "#b8433a", seconds);
        seePerson(seen, FIXED, "teo", boxes);
        const shown = seenBox(box, FIXED);
        if (shown) seen.objects.push({ id: "running-kite", box: shown });
      });
      finish(g, NOON.sun);
      return seen;
    },
  };
}

function kiteAlone(): Shot {
  return {
    name: "kite",
    frames: 225,
    transition: "dissolve",
    overlap: 24,
    draw(g, frame) {
      const seconds = frame / RATE;
      const seen: Seen = { people: [], objects: [] };
      const camera: Camera = {
        ...FIXED,
        x: WIDTH / 2 + wander(seconds * 0.5, 7) * 20,
        y: HEIGHT / 2 + wander(seconds * 0.6, 2) * 12,
      };
      through(g, camera, 0.4, () => {
        drawSky(g, NOON, -MARGIN, WIDTH + 2 * MARGIN, 1300);
        drawClouds(g, bigClouds(), seconds * 34, -120, -MARGIN, WIDTH + MARGIN);
      });
      through(g, camera, 1, () => {
        const x = 560 + ramp(30, 150, frame) * 820 + Math.sin(seconds * 1.4) * 60;
        const y = 470 + Math.sin(seconds * 1.1 + 1) * 170;
        const box = drawKite(g, x, y, 150, 0.25 + Math.sin(seconds * 1.7) * 0.3, "#c9503f", "#e3c25a", seconds);
        const shown = seenBox(box, camera);
        if (shown) seen.objects.push({ id: "lone-kite", box: shown });
      });
      finish(g, NOON.sun, 0.25);
      return seen;
    },
  };
}

const FLASH = 118;

function fourFlyers(): Shot {
  return {
    name: "four",
    frames: 240,
    transition: "cut",
    overlap: 0,
    draw(g, frame) {
      const seconds = frame / RATE;
      const seen: Seen = { people: [], objects: [] };
      meadow(g, FIXED, NOON, longLand, noonClouds, seconds);
      const places = [
        { person: PEOPLE.bram, x: 300, size: 560, kite: [250, 200] as const },
        { person: PEOPLE.wren, x: 760, size: 530, kite: [820, 130] as const },
        { person: PEOPLE.ilse, x: 1190, size: 520, kite: [1270, 240] as const },
        { person: PEOPLE.oskar, x: 1620, size: 570, kite: [1640, 150] as const },
      ];
      places.forEach(({ person, x, size, kite }, i) => {
        const moved = x + (person.id === "wren" ? ramp(70, 160, frame) * 170 : wander(seconds * 0.5, i) * 10);
        const walk = person.id === "wren" ? ramp(66, 82, frame) - ramp(148, 164, frame) : 0;
        const boxes = drawFigure(g, moved, 985 + i * 8, size, person, {
          step: seconds * 6,
          walk,
          rightArm: 0.55 + wander(seconds * 1.3, i) * 0.12,
          yaw: wander(seconds * 0.5, i + 3) * 0.4,
          blink: blinkAt(seconds, i),
        });
        const at: [number, number] = [kite[0] + wander(seconds * 0.8, i + 7) * 50, kite[1] + wander(seconds, i) * 30];
        drawLine(g, boxes.hand, at);
        const box = drawKite(g, ...at, 58, wander(seconds * 1.4, i) * 0.4, person.shirt, "#efe3c6", seconds + i);
        seePerson(seen, FIXED, person.id, boxes);
        seen.objects.push({ id: `kite-${person.id}`, box });
      });
      finish(g, NOON.sun);
      if (frame >= FLASH && frame < FLASH + 2) {
        g.fillStyle = `rgba(255,255,250,${frame < FLASH + 1 ? 0.86 : 0.55})`;
        g.fillRect(0, 0, WIDTH, HEIGHT);
      }
      return seen;
    },
  };
}

function handHeld(): Shot {
  return {
    name: "hand-held",
    frames: 180,
    transition: "cut",
    overlap: 0,
    blurSamples: 2,
    draw(g, frame) {
      const seconds = frame / RATE;
      const seen: Seen = { people: [], objects: [] };
      const walk = 300 + frame * 6.2;
      const camera: Camera = {
        x: walk + 160 + wander(seconds * 2.2, 1) * 60,
        y: HEIGHT / 2 + 30 + wander(seconds * 3.1, 5) * 34,
        zoom: 1.15 + wander(seconds * 0.6, 9) * 0.03,
        roll: wander(seconds * 1.7, 3) * 0.022,
      };
      through(g, camera, 0.15, () => {
        drawSky(g, NOON, -MARGIN, WIDTH + 2 * MARGIN, HORIZON);
        drawClouds(g, noonClouds(), seconds * 10, -60, -MARGIN, WIDTH + MARGIN);
      });
      through(g, camera, 1, () => {
        g.drawImage(longLand(), (WIDTH - longLand().width) / 2, 0);
        const boxes = drawFigure(g, walk, 1050, 690, PEOPLE.wren, {
          step: seconds * 6.4,
          stride: 1.15,
          facing: 1,
          rightArm: 0.35,
          yaw: 0.35 + wander(seconds, 2) * 0.2,
          blink: blinkAt(seconds, 2),
        });
        drawKite(
          g,
          boxes.hand[0] + 10,
          boxes.hand[1] + 10,
          84,
          0.9 + Math.sin(seconds * 6.4) * 0.1,
          "#2f8a8f",
          "#e3c25a",
          seconds,
        );
        seePerson(seen, camera, "wren", boxes);
      });
      finish(g, NOON.sun);
      return seen;
    },
  };
}

function lateArrival(): Shot {
  return {
    name: "late-arrival",
    frames: 225,
    transition: "cut",
    overlap: 0,
    draw(g, frame) {
      const seconds = frame / RATE;
      const seen: Seen = { people: [], objects: [] };
      meadow(g, FIXED, EVENING, eveningLand, eveningClouds, seconds);
      through(g, FIXED, 1, () => {
        for (const post of [240, 380, 1540, 1690]) {
          g.fillStyle = "#3f2f25";
          g.fillRect(post, 610, 12, 190);
        }
        g.fillRect(240, 640, 152, 8);
        g.fillRect(1540, 640, 162, 8);
        // In from the left, a halt to look up, and out on the right.
        const x = -160 + ramp(36, 96, frame) * 1010 + ramp(132, 198, frame) * 1290;
        const halt = ramp(80, 98, frame) - ramp(130, 146, frame);
        const boxes = drawFigure(g, x, 1010, 630, PEOPLE.oskar, {
          step: seconds * 6.6,
          walk: 1 - halt,
          stride: 1.2,
          rightArm: 0.6 * (ramp(90, 108, frame) - ramp(126, 142, frame)),
          yaw: 0.4 - 0.3 * halt,
          blink: blinkAt(seconds, 1),
        });
        seePerson(seen, FIXED, "oskar", boxes);
      });
      finish(g, EVENING.sun, 0.45);
      return seen;
    },
  };
}

function farewell(mouth: Mouth): Shot {
  return {
    name: "farewell",
    frames: 165,
    transition: "fade",
    overlap: 30,
    draw(g, frame) {
      const seconds = frame / RATE;
      const seen: Seen = { people: [], objects: [] };
      // The camera pans slowly from the sunset to Nela, on the right.
      const camera: Camera = { ...FIXED, x: WIDTH / 2 - 220 + ramp(20, 95, frame) * 220 };
      meadow(g, camera, EVENING, eveningLand, eveningClouds, seconds);
      through(g, camera, 1, () => {
        const pose = talking(seconds, mouth("nela", "farewell", frame), 4);
        seePerson(
          seen,
          camera,
          "nela",
          drawBust(g, 1330, 470 + wander(seconds * 0.9, 2) * 4, 250, PEOPLE.nela, {
            ...pose,
            yaw: -0.2 + (pose.yaw ?? 0) * 0.6,
          }),
        );
      });
      finish(g, EVENING.sun, 0.45);
      return seen;
    },
  };
}

export function shots(mouth: Mouth): Shot[] {
  return [
    titleCard(),
    presenter(mouth),
    makers(mouth),
    closeUp(mouth),
    runner(),
    kiteAlone(),
    fourFlyers(),
    handHeld(),
    lateArrival(),
    farewell(mouth),
  ];
}
