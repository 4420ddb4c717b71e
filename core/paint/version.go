package paint

import (
	"math"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/internal/minimum"
)

// As is a tube of a library paint as another version of the library has it, as strong as leaves its 1:9
// tint most like what it is. What has curves of its own, or is of that version, is itself. The error is
// an input.Error.
func (p *Paint) As(version string) (*Paint, error) {
	if p.Library == "" || version == "" || p.Version == version {
		return p, nil
	}
	then, err := FindOf(p.Library, version)
	if err != nil || then.Version == p.Version {
		return p, err
	}
	g, _, err := StrengthIn(p.Library, p.Version, then.Version, p.strength)
	if err != nil {
		return nil, err
	}
	return then.Tube(p.ID, BoundedStrength(g))
}

// The strengths among which one is looked for, as logarithms.
var weakest, strongest = math.Log(0.01), math.Log(50)

// StrengthIn is the strength of a library paint as one version of the library has it whose 1:9 tint
// looks most like that of a strength as another version has it, and how far off it still is
// (CIEDE2000): curves that were fitted anew have another hue too. The error is an input.Error.
func StrengthIn(id, from, to string, strength float64) (is, off float64, err error) {
	tint := func(version string, g float64) (colour.Lab, error) {
		p, err := FindOf(id, version)
		if err != nil {
			return colour.Lab{}, err
		}
		t, err := Mix(Part{p, TintShare * g}, Part{titanium, 1 - TintShare})
		if err != nil {
			return colour.Lab{}, err
		}
		mass := t.Masstone()
		return mass.Lab(), nil
	}
	if !(strength > 0) {
		return 0, 0, input.Errorf("a strength is above 0, and not %v", strength)
	}
	was, err := tint(from, strength)
	if err != nil {
		return 0, 0, err
	}
	at := func(x float64) float64 {
		lab, _ := tint(to, math.Exp(x)) // found a moment ago
		return colour.Difference(was, lab)
	}
	// Coarsely, for there may be more than one hollow; then by golden section.
	const steps = 60
	best := weakest
	width := (strongest - weakest) / steps
	for n := range steps + 1 {
		if x := weakest + float64(n)*width; at(x) < at(best) {
			best = x
		}
	}
	x := minimum.Golden(best-width, best+width, 22, at)
	return math.Exp(x), at(x), nil
}
