package certainty

import (
	"sync"

	"gyrophane/core/paint"
)

// memo remembers what was worked out before.
type memo[K comparable, V any] struct {
	sync.Mutex
	of map[K]V
}

// mostRemembered is how much a memo remembers; one more, and all is forgotten.
const mostRemembered = 4096

// get is what is remembered of a key, or is worked out now.
func (m *memo[K, V]) get(key K, work func() V) V {
	m.Lock()
	out, before := m.of[key]
	m.Unlock()
	if before {
		return out
	}
	out = work()
	m.Lock()
	defer m.Unlock()
	if m.of == nil || len(m.of) >= mostRemembered {
		m.of = map[K]V{}
	}
	m.of[key] = out
	return out
}

// pairKey tells two paints, whatever they are called, and what is not known of them from all others.
type pairKey struct {
	a, b   uint64   // fingerprints
	doubts [2]Doubt // by themselves,
	joint  uint64   // and a fingerprint of what is known of both together
}

func pairKeyOf(a, b *paint.Paint, of [2]Doubt) pairKey {
	out := pairKey{a.Fingerprint(), b.Fingerprint(), of, fingerprint(of)}
	for i := range out.doubts {
		out.doubts[i].Learned, out.doubts[i].Tube = nil, 0
	}
	return out
}
