package paint

import (
	"math"

	"gyrophane/core/colour"
)

// Drawn is one place of a paint drawn down over a white card with a black
// stripe.
type Drawn struct {
	Thickness   float64         // of the film
	White, Over colour.Spectrum // reflectance over the card, and over the stripe
}

// The ends of a drawdown, and the internal reflectance of the black stripe.
const (
	drawnThick  = 12
	drawnThin   = 1.0 / 12
	blackStripe = 0.03
)

// Drawdown draws a mixture down from masstone (x = 12) to a wash (x = 1/12) in
// n even logarithmic places (2 and up), as it looks in a medium, wet or dry.
func (m *Mixture) Drawdown(in Medium, wet bool, n int) []Drawn {
	f := in.Surface(wet)
	state := m.in(in, wet)
	out := make([]Drawn, max(n, 2))
	for i := range out {
		at := float64(i) / float64(len(out)-1)
		x := drawnThick * math.Pow(drawnThin/drawnThick, at)
		out[i] = Drawn{x, state.Film(x, WhiteGround, f), state.Film(x, blackStripe, f)}
	}
	return out
}
