package path

import "gyrophane/core/paint"

// Weaker is the paint of which it takes more to get half way in contrast: the
// one to begin a run from, since a mixture can only be added to.
func (p *Path) Weaker() *paint.Paint {
	if p.ShareAt(0.5, ByContrast) <= 0.5 {
		return p.A
	}
	return p.B
}

// Mixing tells in order how to mix a recipe of the path, and what to do when it has
// gone too far.
func (p *Path) Mixing(r Ratio) []string { return r.Parts.MixingToTaste() }
