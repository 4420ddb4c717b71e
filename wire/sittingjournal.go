package wire

import (
	"gyrophane/core/colour"
	"gyrophane/studio"
)

// JournalPlace is a place of a sitting: as computed, and as it was read.
type JournalPlace struct {
	Slot       string           `json:"slot" doc:"id of the region"`
	Label      string           `json:"label"`
	Computed   Shown            `json:"computed" doc:"dry"`
	Wet        *Shown           `json:"wet,omitempty" doc:"as it was read last"`
	Dry        *Shown           `json:"dry,omitempty"`
	Doubt      string           `json:"doubt" doc:"of the dry reading"`
	Difference float64          `json:"difference" doc:"CIEDE2000 of the dry reading to the computed; 0 where there is none"`
	Says       string           `json:"says" doc:"how it differs, in words; empty where it is as computed"`
	AsComputed bool             `json:"asComputed"`
	Causes     []ExplainedCause `json:"causes" doc:"the likeliest; none where it is not explained"`
	Dries      string           `json:"dries" doc:"what drying did, in words; empty where it was not read wet and dry"`
}

// SittingJournal is what came of a sitting.
type SittingJournal struct {
	SittingListed
	Medium  string         `json:"medium" format:"medium"`
	Title   string         `json:"title"`
	Places  []JournalPlace `json:"places"`
	Learned *Learned       `json:"learned,omitempty" doc:"what the tubes seem to be, from its dry readings"`
	TooFew  string         `json:"tooFew" doc:"why there is none"`
	Notes   []SittingNote  `json:"notes"`
}

// SittingJournalOf shapes what came of a sitting.
func SittingJournalOf(j studio.SittingJournal) SittingJournal {
	sheet := j.Sitting.Plan.Sheet
	out := SittingJournal{SittingListed: SittingListedOf(j.Sitting.SittingEntry), Medium: j.Sitting.Medium.ID, Title: sheet.Title, Places: []JournalPlace{}, TooFew: j.TooFew, Notes: notesOf(j.Sitting)}
	seen := func(r *studio.KeptReading) *Shown {
		if r == nil {
			return nil
		}
		s := shown(r.Lab.OKLab())
		return &s
	}
	for _, p := range j.Places {
		r := &sheet.Regions[p.Region]
		one := JournalPlace{Slot: r.ID, Label: r.Label, Computed: shown(p.Computed.OKLab()), Wet: seen(p.Wet), Dry: seen(p.Dry), Causes: []ExplainedCause{}}
		if p.Dry != nil {
			one.Doubt, one.Difference = p.Dry.Doubt, round(colour.Difference(p.Computed, p.Dry.Lab), 1)
			one.Says = p.Dry.Lab.OKLab().Beside(p.Computed.OKLab())
			if p.Wet != nil {
				one.Dries = p.Dry.Lab.OKLab().Beside(p.Wet.Lab.OKLab())
			}
		}
		if e := p.Explained; e != nil {
			one.AsComputed, one.Causes = e.AsComputed, causesOf(e)
		}
		out.Places = append(out.Places, one)
	}
	if j.Learned != nil {
		learned := LearnedOf(*j.Learned)
		out.Learned = &learned
	}
	return out
}
