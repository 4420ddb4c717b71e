package certainty

import (
	"math"

	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// Edge is between which places of a path a stretch begins, or ends, in 80 of 100 tubes, in the measure of the spacing, 0 to 1.
type Edge struct{ Low, High float64 }

// MudEdges are where each stretch begins and ends in which a path is muddy, as path.Mud lists them, by central differences in
// shade and cleanness of both paints, and in strength where steps go by parts, with what is known of the two together. Where a
// tube leaves no mud at all both ends lie in the middle of the stretch.
func MudEdges(p *path.Path, s path.Spacing, doubt Doubts) [][2]Edge {
	zones := p.Mud()
	out := make([][2]Edge, len(zones))
	if len(zones) == 0 {
		return out
	}
	ends := [2]*paint.Paint{p.A, p.B}
	joint := Together(ends[:], doubt)
	slopes := make([][2][2 * perTube]float64, len(zones)) // of both edges of each, in the units of Doubt
	for k, end := range ends {
		d := doubt(end)
		for u, by := range [perTube]float64{d.Strength, d.Shade, d.Cleanness} {
			if by == 0 || u == 0 && s != path.EqualParts {
				continue
			}
			var at [2][][2]float64 // of either way: both edges of each zone
			for n, sign := range []float64{-1, 1} {
				pair := ends
				pair[k] = moved(end, u, sign*by)
				at[n] = edgesNear(p, zones, path.New(pair[0], pair[1]), s)
			}
			for z := range zones {
				for e := range 2 {
					slopes[z][e][perTube*k+u] = (at[1][z][e] - at[0][z][e]) / (2 * by)
				}
			}
		}
	}
	for z, zone := range zones {
		for e, share := range []float64{zone.From, zone.To} {
			at, off := p.ReachedAt(share, s), within80*joint.deviation(slopes[z][e][:])
			out[z][e] = Edge{max(0, at-off), min(1, at+off)}
			if share <= 0 || share >= 1 {
				out[z][e] = Edge{at, at} // the paint itself is muddy
			}
		}
	}
	return out
}

// moved is a tube of which one unknown, of strength, shade and cleanness, is so far off; the paint itself where it cannot be.
func moved(p *paint.Paint, unknown int, by float64) (out *paint.Paint) {
	var err error
	switch unknown {
	case 0:
		out, err = p.Tube(p.ID, paint.BoundedStrength(math.Exp(by)))
	case 1:
		out, err = p.Variant(by, 0)
	default:
		out, err = p.Variant(0, by)
	}
	if err != nil {
		return p
	}
	return out
}

// edgesNear are the edges of the stretches of another path that lie over some of a path.
func edgesNear(p *path.Path, zones []path.Stretch, q *path.Path, s path.Spacing) [][2]float64 {
	out := make([][2]float64, len(zones))
	for z, zone := range zones {
		from, to := p.ReachedAt(zone.From, s), p.ReachedAt(zone.To, s)
		out[z] = [2]float64{(from + to) / 2, (from + to) / 2}
		most := 0.0
		for _, other := range q.Mud() {
			a, b := q.ReachedAt(other.From, s), q.ReachedAt(other.To, s)
			if over := min(b, to) - max(a, from); over > most {
				most, out[z] = over, [2]float64{a, b}
			}
		}
	}
	return out
}
