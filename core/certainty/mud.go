package certainty

import (
	"math"

	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// Edge is between which places of a path a stretch begins, or ends, in 80 of 100 tubes, in the measure of the spacing, 0 to 1.
type Edge struct{ Low, High float64 }

// MudEdges are where each stretch begins and ends in which a path is muddy, as path.Mud lists them, by central differences in
// shade and cleanness of both paints. Where a tube leaves no mud at all both ends lie in the middle of the stretch.
func MudEdges(p *path.Path, s path.Spacing, doubt Doubts) [][2]Edge {
	zones := p.Mud()
	out := make([][2]Edge, len(zones))
	if len(zones) == 0 {
		return out
	}
	variance := make([][2]float64, len(zones))
	ends := [2]*paint.Paint{p.A, p.B}
	for k, end := range ends {
		d := doubt(end)
		for _, by := range [][2]float64{{d.Shade, 0}, {0, d.Cleanness}} {
			var at [2][][2]float64 // of either way: both edges of each zone
			for n, sign := range []float64{-1, 1} {
				moved, err := end.Variant(sign*by[0], sign*by[1])
				if err != nil {
					moved = end // it cannot be moved so far
				}
				pair := ends
				pair[k] = moved
				at[n] = edgesNear(p, zones, path.New(pair[0], pair[1]), s)
			}
			for z := range zones {
				for e := range 2 {
					half := (at[1][z][e] - at[0][z][e]) / 2
					variance[z][e] += half * half
				}
			}
		}
	}
	for z, zone := range zones {
		for e, share := range []float64{zone.From, zone.To} {
			at, off := p.ReachedAt(share, s), within80*math.Sqrt(variance[z][e])
			out[z][e] = Edge{max(0, at-off), min(1, at+off)}
			if share <= 0 || share >= 1 {
				out[z][e] = Edge{at, at} // the paint itself is muddy
			}
		}
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
