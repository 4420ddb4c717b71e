package journal

import (
	"fmt"
	"strings"
	"time"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// Account is a sitting whole: what was planned, done and read, and what came of it.
type Account struct {
	Name     string // of the wheel
	Medium   paint.Medium
	Sheet    *bench.Sheet
	Began    time.Time
	Ended    bool
	NextTime string
	Notes    []string
	Places   []AccountPlace // one for each region of the sheet, in its order
	Events   []bench.Event  // as they were told
	Readings []Dated        // as they were taken
	Says     []string       // what the tubes turned out to be, a sentence each
}

// AccountPlace is one place of an account.
type AccountPlace struct {
	Coats     int
	Expected  string // hue and verdict; empty where nothing was
	Computed  colour.Lab
	Wet, Dry  *Reading   // the last; nil where there is none
	Explained *Explained // of the dry reading; nil where there is none, or it is doubted
}

// Dated is a reading and when it was taken.
type Dated struct {
	Reading
	AsSeen colour.Lab // as its photo showed it, where what that did to it was taken out; as the reading else
	At     time.Time
}

// Difference is the CIEDE2000 of the dry reading to what was computed, and false where
// nothing was read dry.
func (p *AccountPlace) Difference() (float64, bool) {
	if p.Dry == nil {
		return 0, false
	}
	return colour.Difference(p.Computed, p.Dry.Lab), true
}

// asPlanned is the CIEDE2000 up to which what was mixed passes for what was planned.
const asPlanned = 2

// CameOf says in words what came of a place.
func (p *AccountPlace) CameOf() string {
	switch {
	case p.Dry == nil && p.Wet != nil:
		return "read wet alone"
	case p.Dry == nil:
		return "not read"
	case p.Dry.Doubt != "":
		return "doubted: " + p.Dry.Doubt
	case p.Explained == nil:
		return ""
	case p.Explained.AsComputed && p.Explained.Computed.OKLab().Beside(p.Computed.OKLab()) != colour.NoDifference && colour.Difference(p.Explained.Computed, p.Computed) > asPlanned:
		return "as what was really mixed is computed"
	case p.Explained.AsComputed:
		return "as computed"
	}
	says := p.Dry.Lab.OKLab().Beside(p.Explained.Computed.OKLab()) + ": "
	if len(p.Explained.Causes) == 0 {
		return says + "not explained"
	}
	var causes []string
	for _, c := range p.Explained.Causes {
		causes = append(causes, fmt.Sprintf("%s (leaves %.1f)", c.Says, c.Leaves))
	}
	return says + strings.Join(causes, "; or ")
}
