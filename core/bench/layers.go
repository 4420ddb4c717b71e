package bench

import (
	"slices"

	"gyrophane/core/paint"
)

// settle tells each region what lies beneath it.
func (s *Sheet) settle() {
	for i := range s.Regions {
		r := &s.Regions[i]
		r.under = nil
		for _, k := range r.Beneath {
			r.under = append(r.under, paint.Layer{Mixture: s.Regions[k].Mixture, Thickness: s.Regions[k].Film})
		}
	}
}

// layered says that something is laid over something else.
func (s *Sheet) layered() bool {
	return slices.ContainsFunc(s.Regions, func(r Region) bool { return len(r.Beneath) > 0 })
}

// Drying is how many minutes a place stays wet, for those beside it and those that are laid over it; 0 where
// nobody waits.
func (s *Sheet) Drying(set Settings) float64 {
	if s.layered() {
		return set.dries()
	}
	return set.Drying()
}

// waitsFor are the regions that are not wet when this one is painted.
func (r *Region) waitsFor() []int { return append(slices.Clone(r.Touches), r.Beneath...) }

// laidOver binds each region to what lies beneath it: that is painted before, and dry.
func (p *problem) laidOver(s *Sheet) {
	for i := range s.Regions {
		for _, k := range s.Regions[i].Beneath {
			p.jobs[i].after = p.jobs[i].after.with(k)
			p.jobs[i].touches = append(slices.Clone(p.jobs[i].touches), k)
			p.jobs[k].touches = append(slices.Clone(p.jobs[k].touches), i)
		}
	}
}
