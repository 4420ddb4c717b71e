package wire

import "gyrophane/studio"

// Carried is a wheel or a sitting out of a file, and what bringing it in does.
type Carried struct {
	Kept     int64          `json:"kept" doc:"the wheel or sitting as it is kept now; 0 where it was only looked at"`
	Name     string         `json:"name"`
	Kind     string         `json:"kind,omitempty" format:"systemKind" doc:"of a wheel"`
	Medium   string         `json:"medium"`
	Told     int            `json:"told" doc:"events of a sitting"`
	Readings int            `json:"readings" doc:"of a sitting"`
	Paints   []CarriedPaint `json:"paints"`
}

// CarriedPaint is a paint of it.
type CarriedPaint struct {
	Name     string  `json:"name"`
	Happens  string  `json:"happens" enum:"library,yours,added" doc:"everybody has it; the box has the same; it is put into the box"`
	Strength float64 `json:"strength,omitempty" doc:"as it was learned, 0 where it was not"`
	Low      float64 `json:"low,omitempty" doc:"95 in 100"`
	High     float64 `json:"high,omitempty"`
}

// CarriedOf shapes a wheel or a sitting that came in a file.
func CarriedOf(c studio.Carried) Carried {
	out := Carried{Name: c.Name, Kind: string(c.Kind), Medium: c.Medium.ID, Told: c.Told, Readings: c.Readings, Paints: []CarriedPaint{}}
	for _, p := range c.Paints {
		one := CarriedPaint{Name: p.Name, Happens: p.Happens}
		if l := p.Learned; l != nil {
			one.Strength, one.Low, one.High = l.Strength, l.Low, l.High
		}
		out.Paints = append(out.Paints, one)
	}
	return out
}
