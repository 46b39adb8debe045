/** Doneness bands as they are drawn; the core names them. Common practice. */
export const DONENESS = [
  { key: "rare", low: 49, high: 54, fill: "#8f2436" },
  { key: "medium-rare", low: 54, high: 58, fill: "#a03a44" },
  { key: "medium", low: 58, high: 64, fill: "#a14f48" },
  { key: "medium-well", low: 64, high: 71, fill: "#8d5c45" },
  { key: "well-done", low: 71, high: 80, fill: "#7c5a45" },
] as const;
