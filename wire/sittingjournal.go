package wire

import (
	"slices"
	"time"

	"gyrophane/core/colour"
	"gyrophane/core/journal"
	"gyrophane/studio"
)

// JournalPlace is a place of a sitting: as computed, and as it was read.
type JournalPlace struct {
	Slot       string           `json:"slot" doc:"id of the region"`
	Label      string           `json:"label"`
	Expected   *SlotExpectation `json:"expected,omitempty" doc:"by the painter, before the cover was lifted"`
	Computed   Shown            `json:"computed" doc:"dry"`
	Wet        *Shown           `json:"wet,omitempty" doc:"as it was read last"`
	Dry        *Shown           `json:"dry,omitempty"`
	Doubt      string           `json:"doubt" doc:"of the dry reading"`
	Difference float64          `json:"difference" doc:"CIEDE2000 of the dry reading to the computed; 0 where there is none"`
	Came       string           `json:"came" doc:"what came of it, in words"`
	AsComputed bool             `json:"asComputed"`
	Causes     []ExplainedCause `json:"causes" doc:"the likeliest; none where it is not explained"`
	Dries      string           `json:"dries" doc:"what drying did, in words; empty where it was not read wet and dry"`
}

// SlotExpectation is what a painter expected of a slot, and what became of it.
type SlotExpectation struct {
	HueWord      string `json:"hueWord"`
	Verdict      string `json:"verdict" format:"chromaticVerdict"`
	Computed     string `json:"computed" doc:"hue and verdict, as computed that day"`
	Painted      string `json:"painted" doc:"hue and verdict of what it was painted with; empty where that is not known"`
	HueRight     bool   `json:"hueRight" doc:"as painted or, where that is not known, as computed"`
	VerdictRight bool   `json:"verdictRight"`
}

// PaintedJump is a step between two painted colours that is longer than it should be.
type PaintedJump struct {
	From     string       `json:"from"`
	To       string       `json:"to"`
	Distance float64      `json:"distance" doc:"OKLab"`
	Parts    []Ingredient `json:"parts" doc:"the recipe that stands half way; none where their paints are not two"`
	Recipe   string       `json:"recipe" doc:"the same in words"`
	Shown    *Shown       `json:"shown,omitempty" doc:"as it is painted, dry"`
}

// SittingJournal is what came of a sitting.
type SittingJournal struct {
	SittingListed
	Medium   string          `json:"medium" format:"medium"`
	Title    string          `json:"title"`
	Places   []JournalPlace  `json:"places"`
	Dried    []string        `json:"dried" doc:"what drying did, a sentence each"`
	Jumps    []PaintedJump   `json:"jumps"`
	Suggests []string        `json:"suggests" doc:"what to do otherwise next time, a sentence each"`
	Learned  *Learned        `json:"learned,omitempty" doc:"what the tubes turned out to be, from its dry readings and those of other sittings with its tubes"`
	Sittings int             `json:"sittings" doc:"that it was learned from"`
	Working  bool            `json:"working" doc:"other sittings are still being looked at: ask again"`
	LeftOut  int             `json:"leftOut" doc:"places that it was not learned from: something got into them, or they lie thin"`
	TooFew   string          `json:"tooFew" doc:"why nothing was"`
	Film     *TakenFilm      `json:"film,omitempty" doc:"how thick the painter lays the medium, where that may be taken"`
	Overall  []OpenCause     `json:"overall" doc:"what explains all places of the sitting together"`
	Sure     SureOf          `json:"sure" doc:"what the painter is sure of, whatever was read"`
	Bent     []string        `json:"bent" doc:"what the photos that it was read from do to colours, a sentence each: taken out"`
	Knows    *Knows          `json:"knows,omitempty" doc:"how far the recipes of the sheet are known by the readings"`
	Kept     bool            `json:"kept" doc:"that was taken into the box, and the readings say nothing since"`
	Offered  []TakenStrength `json:"offered" doc:"what may be taken into the box; none where chance makes as much"`
	Takings  []Taking        `json:"takings" doc:"what was taken of its tubes, the last one first"`
	Notes    []SittingNote   `json:"notes"`
	Photos   []SittingPhoto  `json:"photos"`
}

// SureOf is what a painter is sure of.
type SureOf struct {
	Light bool       `json:"light" doc:"it was read in daylight"`
	Tubes []SureTube `json:"tubes" doc:"that are what they were taken for"`
}

// SureTube is a tube of which a painter is sure.
type SureTube struct {
	Paint string `json:"paint"`
	Name  string `json:"name"`
}

// OpenCause is what explains all places of a sitting together.
type OpenCause struct {
	ExplainedCause
	Open bool `json:"open" doc:"no strengths are offered before the painter says what it is"`
}

// Knows is how far recipes are known, as a share of their parts.
type Knows struct {
	Before float64 `json:"before" doc:"without the readings"`
	Now    float64 `json:"now" doc:"with them"`
}

// TakenStrength is a strength that is taken into the box.
type TakenStrength struct {
	Paint string  `json:"paint" doc:"id; empty once it is taken"`
	Tube  int64   `json:"tube" doc:"of the box; 0 where it comes into it"`
	Name  string  `json:"name"`
	Was   float64 `json:"was"`
	Is    float64 `json:"is"`
	Low   float64 `json:"low" doc:"95 in 100"`
	High  float64 `json:"high"`
}

// TakenFilm is how thick a medium is laid, over its usual film.
type TakenFilm struct {
	Was  float64 `json:"was"`
	Is   float64 `json:"is"`
	Low  float64 `json:"low" doc:"95 in 100"`
	High float64 `json:"high"`
}

// Taking is strengths that were taken into the box.
type Taking struct {
	ID        int64           `json:"id"`
	At        time.Time       `json:"at"`
	Sitting   int64           `json:"sitting" doc:"that it was taken at; 0 where that was deleted"`
	Medium    string          `json:"medium" format:"medium"`
	From      string          `json:"from" doc:"what it was learned from, in words"`
	Undone    bool            `json:"undone"`
	Film      float64         `json:"film" doc:"over the usual film; 0 where strengths were taken"`
	FilmWas   float64         `json:"filmWas"`
	Strengths []TakenStrength `json:"strengths"`
	AsBefore  []string        `json:"asBefore" doc:"the tubes that are what they were taken for, and known the better for it"`
}

// TakingOf shapes what was taken into the box.
func TakingOf(t studio.Taking) Taking {
	out := Taking{ID: t.ID, At: t.CreatedAt, Medium: t.Medium, From: t.Says(), Undone: t.UndoneAt != nil, Strengths: []TakenStrength{}, AsBefore: []string{}}
	if t.SittingID != nil {
		out.Sitting = *t.SittingID
	}
	if t.Film != nil && t.FilmWas != nil {
		out.Film, out.FilmWas = round(*t.Film, 3), round(*t.FilmWas, 3)
	}
	for _, s := range t.Strengths {
		name := t.Named[s.TubeID]
		if name == "" {
			name = "a tube that is in the box no more"
		}
		if s.Kept {
			out.AsBefore = append(out.AsBefore, name)
			continue
		}
		out.Strengths = append(out.Strengths, TakenStrength{Tube: s.TubeID, Name: name, Was: round(s.Was, 3), Is: round(s.Strength, 3), Low: round(s.Low, 3), High: round(s.High, 3)})
	}
	return out
}

// TakingsOf shapes what was taken, the last one first.
func TakingsOf(all []studio.Taking) []Taking {
	out := []Taking{}
	for _, t := range all {
		out = append(out, TakingOf(t))
	}
	return out
}

// SittingJournalOf shapes what came of a sitting.
func SittingJournalOf(j studio.SittingJournal) SittingJournal {
	sheet := j.Sitting.Plan.Sheet
	of := &j.Learning
	out := SittingJournal{SittingListed: SittingListedOf(j.Sitting.SittingEntry), Medium: j.Sitting.Medium.ID, Title: sheet.Title, Places: []JournalPlace{}, Jumps: []PaintedJump{},
		Dried: append([]string{}, j.Dried...), Suggests: append([]string{}, j.Suggests...), Sittings: of.Sittings, Working: of.Working, LeftOut: of.LeftOut, TooFew: of.TooFew, Overall: []OpenCause{}, Bent: append([]string{}, j.Bent...), Offered: []TakenStrength{}, Takings: TakingsOf(j.Takings), Notes: notesOf(j.Sitting), Photos: photosOf(j.Photos)}
	for _, p := range j.Places {
		out.Places = append(out.Places, journalPlace(j, p))
	}
	for _, jump := range j.Jumps {
		out.Jumps = append(out.Jumps, jumpOf(j, jump))
	}
	out.Sure = SureOf{Light: j.Sitting.Sure.Light, Tubes: []SureTube{}}
	for _, p := range sheet.Paints() {
		if slices.Contains(j.Sitting.Sure.Tubes, p.ID) {
			out.Sure.Tubes = append(out.Sure.Tubes, SureTube{Paint: p.ID, Name: p.ShortName()})
		}
	}
	open := journal.Unsettled(j.Overall)
	for _, c := range j.Overall {
		if c.Kind != journal.OfPhoto { // that is in Bent
			out.Overall = append(out.Overall, OpenCause{causeOf(c), slices.ContainsFunc(open, func(o journal.Cause) bool { return o.Same(c) })})
		}
	}
	if of.Learned != nil {
		learned := LearnedOf(*of.Learned)
		out.Learned = &learned
	}
	if f := of.Film; f != nil {
		out.Film = &TakenFilm{Was: round(f.Old, 3), Is: round(f.New, 3), Low: round(f.Low, 3), High: round(f.High, 3)}
	}
	if k := of.Knows; k != nil {
		out.Knows, out.Kept = &Knows{round(k.Before, 2), round(k.Now, 2)}, of.Kept
	}
	for _, s := range of.Offered {
		out.Offered = append(out.Offered, TakenStrength{Paint: s.Paint.ID, Tube: of.Tubes[s.Paint.ID].ID, Name: s.Paint.ShortName(), Was: round(s.Old, 3), Is: round(s.New, 3), Low: round(s.Low, 3), High: round(s.High, 3)})
	}
	return out
}

func journalPlace(j studio.SittingJournal, p studio.PlaceRead) JournalPlace {
	seen := func(r *journal.Reading) *Shown {
		if r == nil {
			return nil
		}
		s := shown(r.Lab.OKLab())
		return &s
	}
	r := &j.Sitting.Plan.Sheet.Regions[p.Region]
	out := JournalPlace{Slot: r.ID, Label: r.Label, Computed: shown(p.Computed.OKLab()), Wet: seen(p.Wet), Dry: seen(p.Dry), Came: p.CameOf(), Causes: []ExplainedCause{}}
	if de, dry := p.Difference(); dry {
		out.Doubt, out.Difference = p.Dry.Doubt, round(de, 1)
		if p.Wet != nil {
			out.Dries = p.Dry.Lab.OKLab().Beside(p.Wet.Lab.OKLab())
		}
	}
	if e := p.Explained; e != nil {
		out.AsComputed, out.Causes = e.AsComputed, causesOf(e)
	}
	if e := p.Expected; e != nil {
		out.Expected = &SlotExpectation{HueWord: e.HueWord, Verdict: e.Verdict.String(), Computed: e.Computed.HueWord + ", " + e.Computed.Verdict, Painted: e.CameOut, HueRight: e.Computed.HueRight, VerdictRight: e.Computed.VerdictRight}
		if e.Painted != nil {
			out.Expected.HueRight, out.Expected.VerdictRight = e.Painted.HueRight, e.Painted.VerdictRight
		}
	}
	return out
}

func jumpOf(j studio.SittingJournal, jump journal.Jump) PaintedJump {
	out := PaintedJump{From: jump.From, To: jump.To, Distance: round(jump.Distance, 3), Parts: []Ingredient{}}
	if m := jump.Mend; m != nil {
		look := m.Mixture.AsPainted(j.Sitting.Medium, false)
		half := shown(look.Lab().OKLab())
		out.Parts, out.Recipe, out.Shown = View{Medium: j.Sitting.Medium, Light: colour.D65}.Recipe(m.Parts), m.Parts.Words(), &half
	}
	return out
}

// Reminder is what a painter wanted to do otherwise when a wheel was painted last.
type Reminder struct {
	Sitting int64     `json:"sitting"`
	At      time.Time `json:"at"`
	Says    string    `json:"says"`
}
