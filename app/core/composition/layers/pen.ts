/** The part of a canvas context that layers need, which browser and server both have. */
export interface Pen {
  font: string;
  fillStyle: unknown;
  strokeStyle: unknown;
  textAlign: unknown;
  textBaseline: unknown;
  lineJoin: unknown;
  lineWidth: number;
  globalAlpha: number;
  shadowColor: string;
  shadowBlur: number;
  shadowOffsetX: number;
  shadowOffsetY: number;
  save(): void;
  restore(): void;
  translate(x: number, y: number): void;
  scale(x: number, y: number): void;
  beginPath(): void;
  roundRect(x: number, y: number, width: number, height: number, radius: number): void;
  fill(): void;
  clip(): void;
  drawImage(picture: unknown, x: number, y: number, width: number, height: number): void;
  fillText(text: string, x: number, y: number): void;
  strokeText(text: string, x: number, y: number): void;
  measureText(text: string): { width: number };
}
