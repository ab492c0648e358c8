/** How the phone sits on the camera, from the side: upright at its back, the screen towards you. */
export function TapedPhone() {
  return (
    <svg
      viewBox="0 0 200 112"
      role="img"
      aria-label="The phone is taped upright to the back of the camera, its screen towards you."
      className="w-full max-w-72"
    >
      <rect x="24" y="40" width="46" height="36" fill="var(--ridge-5)" />
      <rect x="20" y="36" width="8" height="44" fill="var(--ridge-5)" />
      <path d="M70 36h10l4 -8h20l4 8h8v52h-46Z" fill="var(--ink)" />
      <rect x="117" y="14" width="8" height="88" rx="2" fill="var(--ridge-3)" />
      <rect x="125" y="20" width="2" height="76" fill="var(--ridge-2)" />
      {[44, 72].map((y) => (
        <rect key={y} x="66" y={y} width="63" height="7" fill="var(--lamp)" />
      ))}
      <path d="M131 58H156" stroke="var(--stone)" strokeWidth="1.5" strokeDasharray="2 3" />
      <circle cx="176" cy="58" r="15" fill="var(--ridge-4)" />
      <path d="M163 53l-7 5l7 5Z" fill="var(--ridge-4)" />
      <path d="M160 112q0 -30 16 -34q20 4 22 34Z" fill="var(--ridge-4)" />
    </svg>
  );
}
