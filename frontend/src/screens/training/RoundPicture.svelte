<!-- What a round shows: a section, a grind, a surface to fill or a piece, each drawn from the core's numbers. -->
<script lang="ts">
  import type { ServedRound } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { units } from "../../lib/units.svelte";
  import ScaleBar, { coinRoom } from "../shape/ScaleBar.svelte";
  import { meatColour } from "./meatColour";

  let { picture }: { picture: ServedRound["round"]["picture"] } = $props();
  const uid = $props.id();
  const mm = (value: number) => amount({ kind: "length_mm", value }, units);
  const PX = 10;
  /** A grind is spread in rows, every other one set in by half. */
  const ACROSS = 26;
</script>

{#if picture.kind === "section"}
  {@const tall = Math.max(60, Math.min(240, picture.size_mm * PX))}
  <svg
    viewBox={`0 0 480 ${tall + 8}`}
    class="block w-full max-w-[34rem]"
    role="img"
    aria-label={`A section, ${mm(picture.size_mm)} thick, from below: ${picture.temp_c
      .filter((_, n) => n % Math.ceil(picture.temp_c.length / 8) === 0)
      .map((t) => amount({ kind: "temp_c", value: t }, units))
      .join(", ")}`}
  >
    <defs>
      <linearGradient id={`${uid}-meat`} x1="0" x2="0" y1="1" y2="0">
        {#each picture.depths_frac as depth, n (n)}
          <stop offset={depth} stop-color={meatColour(picture.temp_c[n] ?? 0)} />
        {/each}
      </linearGradient>
    </defs>
    <rect x="4" y="4" width="404" height={tall} rx={Math.min(26, tall / 3)} fill={`url(#${uid}-meat)`} />
    <path d={`M418 4h8v${tall}h-8`} fill="none" class="stroke-base-content" stroke-width="1.4" />
    <text x="433" y={tall / 2 + 8} class="fill-base-content text-[12px]">{mm(picture.size_mm)}</text>
  </svg>
{:else if picture.kind === "grind"}
  <svg
    viewBox="0 0 540 200"
    class="block w-full max-w-[34rem]"
    role="img"
    aria-label={`A grind: ${picture.white.filter(Boolean).length} of ${picture.white.length} grains are white`}
  >
    <rect width="540" height="200" rx="8" fill="#5d1a26" />
    {#each picture.white as white, n (n)}
      {@const row = Math.floor(n / ACROSS)}
      <ellipse
        cx={18 + (n % ACROSS) * 20 + (row % 2) * 9 + ((n * 7) % 5) - 2}
        cy={12 + row * 19.6 + ((n * 11) % 5) - 2}
        rx="10.4"
        ry="9.2"
        fill={white ? "#f3e7cf" : n % 3 ? "#8c2a3a" : "#7b2233"}
        transform={`rotate(${(n * 37) % 60} ${18 + (n % ACROSS) * 20} ${12 + row * 19.6})`}
      />
    {/each}
  </svg>
{:else if picture.kind === "surface"}
  {@const w = picture.width_mm}
  {@const h = picture.depth_mm}
  {@const at = picture.round_shape ? w / 2 : picture.piece_mm / 2 + 8}
  <svg
    viewBox={`-6 -6 ${w + 12} ${h + w / 14 + 12}`}
    class="block max-h-[20rem] w-full max-w-[34rem]"
    role="img"
    aria-label={`A surface of ${mm(w)} by ${mm(h)} with one piece of ${mm(picture.piece_mm)} on it`}
  >
    {#if picture.round_shape}<circle cx={w / 2} cy={h / 2} r={w / 2} fill="#3a474e" />
    {:else}<rect width={w} height={h} rx="8" fill="#3a474e" />{/if}
    <circle
      cx={at}
      cy={picture.round_shape ? h / 2 : at}
      r={picture.piece_mm / 2}
      class="fill-lean"
      stroke="#efdcae"
      stroke-width={w / 260}
    />
    <text x="0" y={h + w / 18} class="fill-base-content" font-size={w / 26}>{mm(w)} × {mm(h)}</text>
  </svg>
{:else if picture.kind === "piece"}
  {@const d = picture.diameter_mm}
  {@const room = Math.max(d, picture.bread_mm)}
  {@const px = 220 / room}
  <svg
    viewBox={`0 0 480 ${room * px + coinRoom(px) + 14}`}
    class="block w-full max-w-[34rem]"
    role="img"
    aria-label={`A raw piece ${mm(d)} across and ${mm(picture.thickness_mm)} thick${
      picture.bread_mm ? `, beside a bun of ${mm(picture.bread_mm)}` : ""
    }`}
  >
    <circle cx={(room * px) / 2 + 6} cy={(room * px) / 2 + 4} r={(d * px) / 2} class="fill-lean" />
    {#if picture.bread_mm}<circle
        cx={(room * px) / 2 + 6}
        cy={(room * px) / 2 + 4}
        r={(picture.bread_mm * px) / 2}
        fill="none"
        stroke="#e2b977"
        stroke-width="2"
        stroke-dasharray="6 4"
      />{/if}
    <rect
      x={room * px + 30}
      y={(room * px) / 2}
      width={Math.min(d * px, 470 - room * px - 30)}
      height={picture.thickness_mm * px}
      rx={Math.min(6, (picture.thickness_mm * px) / 2)}
      class="fill-lean"
    />
    <ScaleBar
      x={6}
      y={room * px + coinRoom(px) + 6}
      {px}
      coin
      note={picture.bread_mm ? "dashed: its bun" : ""}
    />
  </svg>
{/if}
