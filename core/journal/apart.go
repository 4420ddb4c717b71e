package journal

import (
	"fmt"
	"slices"
	"strings"

	"gyrophane/core/bench"
	"gyrophane/core/paint"
	"gyrophane/core/text"
)

// Groups are the coloured paints of a sheet that its mixtures join, white among them: only
// the ratios of strengths within a group can be learned from what is read of it. Those of
// a group that white joins can be told whole.
func Groups(s *bench.Sheet) (groups [][]*paint.Paint) {
	var samples []Sample
	for i := range s.Regions {
		samples = append(samples, Sample{Parts: s.Regions[i].Recipe.Plain()})
	}
	f := newFit(samples, paint.Medium{}, Sure{})
	groups = make([][]*paint.Paint, len(f.fixed))
	for i, p := range f.tubes {
		groups[f.groups[i]] = append(groups[f.groups[i]], p)
	}
	return groups
}

// Apart says that the tubes of a sheet cannot all be told from each other by what will be
// read of it, and the first of mends that would tell them. It is empty where they can be
// told.
func Apart(s *bench.Sheet, mends []Mend) string {
	groups := Groups(s)
	if len(groups) < 2 {
		return ""
	}
	var named []string
	for _, g := range groups {
		var names []string
		for _, p := range g {
			names = append(names, p.ShortName())
		}
		named = append(named, text.Listed(names))
	}
	slices.Sort(named)
	says := fmt.Sprintf("On this sheet %d groups of tubes never meet (%s), so that readings of it can tell only the ratios within each.", len(groups), strings.Join(named, "; "))
	for _, m := range mends {
		if with := m.Sheet(); with != nil && len(Groups(with)) == 1 {
			return says + " " + m.Says
		}
	}
	return says + " A few tints of each with white would tell them."
}

// Mend is a sheet that may tell tubes from each other which another does not.
type Mend struct {
	Sheet func() *bench.Sheet // nil where it cannot be
	Says  string              // what it has besides
}
