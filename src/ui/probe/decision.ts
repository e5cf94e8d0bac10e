import type { Recognition } from '$core/recognise/recognition.js';

/** The gate's decision as a person would say it. */
export function decisionInWords({
  decision,
  intent,
  candidates,
}: Pick<Recognition, 'decision' | 'intent' | 'candidates'>): string {
  if (decision === 'accept') return `accept ${intent ?? ''}`;
  if (decision === 'none') return 'not matched';
  return candidates.length > 1 ? `ask: ${candidates.join(' or ')}` : `ask whether ${candidates.join('')}`;
}
