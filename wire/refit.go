package wire

import "gyrophane/core/paint"

// RoundTrip is how well two swatches stand for a paint, over the library.
type RoundTrip struct {
	Paints   int        `json:"paints" doc:"worked out anew; whites stay as they are"`
	Pairs    int        `json:"pairs"`
	Tint     float64    `json:"whiteShare" doc:"of the tints"`
	Opaque   Spread     `json:"opaque" doc:"mixtures laid out opaque, 1:3, 1:1 and 3:1"`
	Film     Spread     `json:"film" doc:"the same brushed out thin over white"`
	WorstFit float64    `json:"worstFit" doc:"the worst miss of a swatch that was given"`
	Each     []TripEach `json:"each"`
}

// Spread sums up CIEDE2000 differences.
type Spread struct {
	Median    float64   `json:"median"`
	P95       float64   `json:"p95"`
	Worst     float64   `json:"worst"`
	WorstPair [2]string `json:"worstPair"`
}

// TripEach is one paint's refit.
type TripEach struct {
	Paint string  `json:"paint"`
	Mass  float64 `json:"mass" doc:"CIEDE2000 of the masstone to what was given"`
	Tint  float64 `json:"tint"`
}

// RoundTripOf shapes a round trip.
func RoundTripOf(t paint.RoundTrip) RoundTrip {
	spread := func(s paint.Spread) Spread {
		return Spread{round(s.Median, 3), round(s.P95, 3), round(s.Worst, 3), s.WorstPair}
	}
	out := RoundTrip{Paints: len(t.Paints), Pairs: t.Pairs, Tint: paint.TripTint, Opaque: spread(t.Opaque), Film: spread(t.Film)}
	for _, p := range t.Paints {
		out.Each = append(out.Each, TripEach{p.Paint.ID, round(p.Fit.Mass, 3), round(p.Fit.Tint, 3)})
		out.WorstFit = max(out.WorstFit, round(max(p.Fit.Mass, p.Fit.Tint), 3))
	}
	return out
}
