export const outputTexts = {
  /** core/formats/output-formats.ts */
  formats: {
    mp4: "Plays everywhere",
    hevc: "Smaller files; not every browser plays it",
    vp9: "For the web; takes longer",
    av1: "Smallest for the web; takes longest",
    prores: "For finishing elsewhere; large files",
    dnxhr: "For finishing elsewhere; large files",
    pngName: "PNG sequence",
    png: "A picture per frame, in a ZIP file, without sound",
    gif: "A short loop, without sound",
    webpName: "Animated WebP",
    webp: "A short loop, smaller and sharper than GIF, without sound",
    profile: "Profile",
    colours: "Colours",
    quality: "Quality",
  },
};
