package journal

import (
	"math"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// ClassPlace is how a class painted one place of a sheet.
type ClassPlace struct {
	Read    int        // sheets that it was read of
	Mean    colour.Lab // of those
	Spread  float64    // mean CIEDE2000 of each to the mean
	Off     float64    // CIEDE2000 of the mean to the computed
	Strayed bool       // the class as a whole, beyond what its sheets differ by
	Says    string     // how the mean differs from the computed; empty where nothing was read
}

// leastOfClass is of how many sheets a class is spoken of as a whole.
const leastOfClass = 3

// ClassPlaces are the places of a sheet as a class painted them: read holds, sheet by sheet, what was read of each place, nil where
// that is nothing. A class has strayed where its mean is off by more than twice its error, and by what is seen.
func ClassPlaces(computed []colour.Lab, read [][]*colour.Lab) []ClassPlace {
	out := make([]ClassPlace, len(computed))
	for i, aimed := range computed {
		p := &out[i]
		var all []colour.Lab
		for _, sheet := range read {
			if i < len(sheet) && sheet[i] != nil {
				all = append(all, *sheet[i])
			}
		}
		if p.Read = len(all); p.Read == 0 {
			continue
		}
		n := float64(p.Read)
		for _, c := range all {
			p.Mean.L += c.L / n
			p.Mean.A += c.A / n
			p.Mean.B += c.B / n
		}
		squares := 0.0
		for _, c := range all {
			d := colour.Difference(c, p.Mean)
			p.Spread += d / n
			squares += d * d
		}
		p.Off = colour.Difference(p.Mean, aimed)
		p.Says = p.Mean.OKLab().Beside(aimed.OKLab())
		if p.Read >= leastOfClass {
			// What one camera in one light does to all of them alike does not go by reading more.
			ofMean := math.Hypot(math.Sqrt(squares/(n-1)/n), NoiseOf(paint.Photo, 0))
			p.Strayed = p.Off > 2*ofMean && p.Says != colour.NoDifference
		}
	}
	return out
}
