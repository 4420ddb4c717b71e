package wire

import "gyrophane/studio"

// Carried is a wheel out of a file, and what bringing it in does.
type Carried struct {
	Wheel  int64          `json:"wheel" doc:"as it is kept now; 0 where it was only looked at"`
	Name   string         `json:"name"`
	Kind   string         `json:"kind" format:"systemKind"`
	Medium string         `json:"medium"`
	Paints []CarriedPaint `json:"paints"`
}

// CarriedPaint is a paint of it.
type CarriedPaint struct {
	Name     string  `json:"name"`
	Happens  string  `json:"happens" enum:"library,yours,added" doc:"everybody has it; the box has the same; it is put into the box"`
	Strength float64 `json:"strength,omitempty" doc:"as it was learned, 0 where it was not"`
	Low      float64 `json:"low,omitempty" doc:"95 in 100"`
	High     float64 `json:"high,omitempty"`
}

// CarriedOf shapes a wheel that came in a file.
func CarriedOf(c studio.Carried) Carried {
	out := Carried{Name: c.Name, Kind: string(c.Kind), Medium: c.Medium.ID, Paints: []CarriedPaint{}}
	for _, p := range c.Paints {
		one := CarriedPaint{Name: p.Name, Happens: p.Happens}
		if l := p.Learned; l != nil {
			one.Strength, one.Low, one.High = l.Strength, l.Low, l.High
		}
		out.Paints = append(out.Paints, one)
	}
	return out
}
