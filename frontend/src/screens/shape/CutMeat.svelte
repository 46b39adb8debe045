<!-- The hatching of meat cut through, as a pattern of a drawing. -->
<script lang="ts">
  let { id }: { id: string } = $props();
</script>

<pattern {id} width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(38)">
  <rect width="8" height="8" class="fill-lean" /><path d="M0 0V8" stroke="#8d3345" stroke-width="2.6" />
</pattern>
