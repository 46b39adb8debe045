<script lang="ts">
</script>

<!-- Our mark: lean above, fat below, and the line between them that the bench is about. -->
<svg viewBox="0 0 32 32" class="size-6" aria-hidden="true">
  <path d="M3 13a13 13 0 0 1 26 0z" fill="#b8485c" />
  <path d="M3 19h26a13 13 0 0 1-26 0z" fill="#efdcae" />
  <path d="M3 15.2h26v1.6H3z" fill="#7cc4cf" />
</svg>
