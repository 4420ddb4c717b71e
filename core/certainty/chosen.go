package certainty

import (
	"cmp"
	"slices"

	"gyrophane/core/reach"
	"gyrophane/core/wheel"
)

// RunnerUp is a system that was chosen after the best.
type RunnerUp struct {
	reach.Ranked
	Alike bool // as tubes differ it cannot be told from the best
}

// RunnersUp are systems that were chosen after the best: first those that cannot be told from it, the cheapest before the
// others; then the rest in their order. Where wanted colours were the aim all are told by these.
func RunnersUp(best reach.Ranked, others []reach.Ranked, doubt Doubts) []RunnerUp {
	systems := []wheel.System{best.System}
	for _, one := range others {
		systems = append(systems, one.System)
	}
	sure := OfSystems(systems, doubt)
	out := make([]RunnerUp, len(others))
	for i, one := range others {
		out[i] = RunnerUp{one, best.MeanDE == nil && sure.Alike(0, i+1, best.Reach, one.Reach)}
	}
	slices.SortStableFunc(out, func(a, b RunnerUp) int {
		switch {
		case a.Alike && !b.Alike:
			return -1
		case b.Alike && !a.Alike:
			return 1
		case a.Alike && a.Price != nil && b.Price != nil:
			return cmp.Compare(*a.Price, *b.Price)
		}
		return 0
	})
	return out
}

// AlikePurchases says of each paint to buy whether, as tubes differ, what it brings cannot be told from what the first brings;
// never of the first.
func AlikePurchases(all []reach.Purchase, doubt Doubts) []bool {
	var systems []wheel.System
	for _, one := range all {
		systems = append(systems, one.System)
	}
	sure := OfSystems(systems, doubt)
	out := make([]bool, len(all))
	for i := 1; i < len(all); i++ {
		out[i] = sure.Alike(0, i, all[0].Reach, all[i].Reach)
	}
	return out
}
