package wire

import (
	"gyrophane/core/journal"
)

// LearnedStrength is what a tube turned out to be.
type LearnedStrength struct {
	Paint   string  `json:"paint"`
	Code    string  `json:"code"`
	Name    string  `json:"name"`
	Old     float64 `json:"old" doc:"strength as it was taken to be"`
	New     float64 `json:"new"`
	Low     float64 `json:"low" doc:"95 in 100"`
	High    float64 `json:"high"`
	Settled bool    `json:"settled" doc:"the readings tell it"`
	Named   bool    `json:"named" doc:"it is another than it was taken for: named, and proposed with what is"`
	Group   int     `json:"group" doc:"of the tubes that mixtures join: only their ratios are told"`
}

// Learned is what readings say of tubes.
type Learned struct {
	Strengths []LearnedStrength `json:"strengths"`
	Before    float64           `json:"errorBefore" doc:"mean CIEDE2000 of the readings to what was computed"`
	After     float64           `json:"errorAfter"`
	LeftOut   float64           `json:"errorLeftOut" doc:"each reading with strengths that were learned without it"`
	Proposed  bool              `json:"proposed" doc:"the new ones are better by more than chance"`
	Chance    float64           `json:"chance" doc:"of so much or more by chance alone"`
	Separate  int               `json:"separate" doc:"groups of tubes that no mixture joins"`
	Readings  int               `json:"readings"`
	Film      *LearnedFilm      `json:"film,omitempty" doc:"how thick the medium is laid over what it was taken to be, where the readings say that it is another"`
	Overall   []ExplainedCause  `json:"overall" doc:"what explains all places together"`
	Photos    []string          `json:"photos" doc:"what the photos that were read do to colours, a sentence each: taken out"`
	Nonsense  bool              `json:"nonsense" doc:"the readings have nothing to do with what was painted: no figure of them tells anything"`
	Says      []string          `json:"says" doc:"the tubes that are others than they were taken for, a sentence each group; also of those of which the readings cannot tell which they are"`
}

// LearnedFilm is how thick a medium turned out to be laid.
type LearnedFilm struct {
	Is   float64 `json:"is" doc:"times as thick as it was taken to be"`
	Low  float64 `json:"low" doc:"95 in 100"`
	High float64 `json:"high"`
}

// LearnedOf shapes what was learned.
func LearnedOf(l journal.Learned) Learned {
	out := Learned{Strengths: []LearnedStrength{}, Before: round(l.Before, 2), After: round(l.After, 2), LeftOut: round(l.LeftOut, 2), Proposed: l.Proposed, Chance: round(l.Chance, 4), Separate: l.Separate, Readings: l.Samples, Nonsense: l.Nonsense, Says: []string{}, Photos: []string{}, Overall: []ExplainedCause{}}
	out.Says = append(out.Says, l.Says()...)
	if f := l.Film; f != nil {
		out.Film = &LearnedFilm{Is: round(f.New, 3), Low: round(f.Low, 3), High: round(f.High, 3)}
	}
	for _, c := range l.Overall {
		out.Overall = append(out.Overall, causeOf(c))
	}
	for _, b := range l.Photos {
		if says := b.Says(); says != "" {
			out.Photos = append(out.Photos, says)
		}
	}
	for _, s := range l.Strengths {
		out.Strengths = append(out.Strengths, LearnedStrength{Paint: s.Paint.ID, Code: s.Paint.Code(), Name: s.Paint.Name, Old: round(s.Old, 3), New: round(s.New, 3), Low: round(s.Low, 3), High: round(s.High, 3), Settled: s.Settled, Named: s.Named, Group: s.Group})
	}
	return out
}

// ExplainedReading is a reading, how it differs from what was computed, and why.
type ExplainedReading struct {
	Reading    string           `json:"reading" doc:"the place, or what it was mixed from"`
	Computed   [3]float64       `json:"computed" doc:"CIELAB, D65"`
	Read       [3]float64       `json:"read" doc:"without what its photo did to it, where that was found"`
	Difference float64          `json:"difference" doc:"CIEDE2000"`
	Lightness  float64          `json:"lightness" doc:"its components: lighter,"`
	Chroma     float64          `json:"chroma" doc:"more chroma,"`
	Hue        float64          `json:"hue" doc:"and round in hue"`
	AsComputed bool             `json:"asComputed" doc:"no more than readings and hands stray"`
	Causes     []ExplainedCause `json:"causes" doc:"the likeliest; two where both say the same; none where it is not explained"`
}

// ExplainedCause is one that the evidence carries.
type ExplainedCause struct {
	Kind   string   `json:"kind" doc:"amount, tube, contamination or too thin; of all places: photo, light, film, not the tube, or thin, or the photo"`
	Paint  string   `json:"paint" doc:"empty of a film, a photo or a light"`
	Like   []string `json:"like,omitempty" doc:"what a tube may be instead, the likeliest first"`
	Amount float64  `json:"amount" doc:"times as much, the share of a trace, or the film over the usual one"`
	Says   string   `json:"says"`
	Leaves float64  `json:"leaves" doc:"CIEDE2000 of the reading to what the cause makes of the place"`
}

// ExplainedOf shapes what differs, and why.
func ExplainedOf(all []journal.Explained) []ExplainedReading {
	out := []ExplainedReading{}
	for _, e := range all {
		out = append(out, ExplainedReading{Reading: e.Region, Computed: labOf(e.Computed), Read: labOf(e.Read), Difference: round(e.Difference, 2), Lightness: round(e.By[0], 2), Chroma: round(e.By[1], 2), Hue: round(e.By[2], 2), AsComputed: e.AsComputed, Causes: causesOf(&e)})
	}
	return out
}

func causesOf(e *journal.Explained) []ExplainedCause {
	out := []ExplainedCause{}
	for _, c := range e.Causes {
		out = append(out, causeOf(c))
	}
	return out
}

func causeOf(c journal.Cause) ExplainedCause {
	out := ExplainedCause{Kind: string(c.Kind), Amount: round(c.Amount, 3), Says: c.Says, Leaves: round(c.Leaves, 1)}
	if c.Paint != nil {
		out.Paint = c.Paint.ID
	}
	for _, p := range c.Like {
		out.Like = append(out.Like, p.ID)
	}
	return out
}
