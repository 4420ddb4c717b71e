package store

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"reflect"

	"gorm.io/gorm/schema"

	"gyrophane/core/bench"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// The JSON that is kept in columns has shapes of its own, here and nowhere else:
// what is sent to a client may change without them. Each carries the version of
// its shape. What was kept before there were versions has none, and the shape of
// the first. A shape that must change gets a new version, and is opened from both.

// The versions in which each shape is written today.
var (
	definitionShape  = versioned{1}
	snapshotShape    = versioned{1}
	settingsShape    = versioned{1}
	sittingPlanShape = versioned{1}
	eventShape       = versioned{1}
	slotOutcomeShape = versioned{1}
	expectedShape    = versioned{1}
	pairOutcomeShape = versioned{1}
	truthShape       = versioned{1}
	classTallyShape  = versioned{1}
	workedShape      = versioned{1}
	onPhotoShape     = versioned{1}
)

// versioned is part of every shape that is kept.
type versioned struct {
	Version int `json:"v,omitempty"`
}

func (v versioned) version() int { return v.Version }

func init() {
	schema.RegisterSerializer("definition", shape[paint.Definition, keptDefinition]{definitionShape, keepDefinition, keptDefinition.open})
	schema.RegisterSerializer("snapshot", shape[Snapshot, keptSnapshot]{snapshotShape, keepSnapshot, keptSnapshot.open})
	schema.RegisterSerializer("settings", shape[Settings, keptSettings]{settingsShape, keepSettings, keptSettings.open})
	schema.RegisterSerializer("sitting_plan", shape[SittingPlan, keptSittingPlan]{sittingPlanShape, keepSittingPlan, keptSittingPlan.open})
	schema.RegisterSerializer("sitting_event", shape[bench.Event, keptEvent]{eventShape, keepEvent, keptEvent.open})
	schema.RegisterSerializer("worked", shape[bench.Worked, keptWorked]{workedShape, keepWorked, keptWorked.open})
	schema.RegisterSerializer("on_photo", shape[OnPhoto, keptOnPhoto]{onPhotoShape, keepOnPhoto, keptOnPhoto.open})
	schema.RegisterSerializer("slot_outcome", shape[journal.SlotOutcome, keptSlotOutcome]{slotOutcomeShape, keepSlotOutcome, keptSlotOutcome.open})
	schema.RegisterSerializer("expected", shape[journal.Expected, keptExpected]{expectedShape, keepExpected, keptExpected.open})
	schema.RegisterSerializer("pair_outcome", shape[journal.PairOutcome, keptPairOutcome]{pairOutcomeShape, keepPairOutcome, keptPairOutcome.open})
	schema.RegisterSerializer("truth", shape[journal.Truth, keptTruth]{truthShape, keepTruth, keptTruth.open})
	schema.RegisterSerializer("class_tally", shape[journal.ClassTally, keptClassTally]{classTallyShape, keepClassTally, keptClassTally.open})
}

// shape keeps values V as JSON of the shape K.
type shape[V any, K interface{ version() int }] struct {
	now  versioned // in which it is written
	keep func(V) K
	open func(K) V
}

// Scan is for GORM.
func (s shape[V, K]) Scan(ctx context.Context, field *schema.Field, row reflect.Value, column any) error {
	var data []byte
	switch c := column.(type) {
	case nil:
		return nil
	case []byte:
		data = c
	case string:
		data = []byte(c)
	default:
		return fmt.Errorf("the column %s holds %T, and no JSON", field.DBName, column)
	}
	var kept K
	if err := json.Unmarshal(data, &kept); err != nil {
		return fmt.Errorf("the column %s: %w", field.DBName, err)
	}
	if v := kept.version(); v > s.now.Version {
		return fmt.Errorf("the column %s was written by a newer Gyrophane: it has the shape %d, and %d is known here", field.DBName, v, s.now.Version)
	}
	field.ReflectValueOf(ctx, row).Set(reflect.ValueOf(s.open(kept)))
	return nil
}

// Value is for GORM.
func (s shape[V, K]) Value(_ context.Context, field *schema.Field, _ reflect.Value, value any) (any, error) {
	data, err := json.Marshal(s.keep(value.(V)))
	if err != nil {
		return nil, fmt.Errorf("the column %s: %w", field.DBName, err)
	}
	return string(data), nil
}

// keptDefinition is what paint a tube is.
type keptDefinition struct {
	versioned
	Library  string       `json:"library,omitempty"`
	Of       string       `json:"of,omitempty"` // version of the library
	Name     string       `json:"name,omitempty"`
	Making   paint.Making `json:"made,omitempty"`
	Pigments []string     `json:"pigments,omitempty"`
	K        []float64    `json:"k,omitempty"`
	S        []float64    `json:"s,omitempty"`
	Origin   *keptOrigin  `json:"origin,omitempty"`
}

type keptOrigin struct {
	Kind       string       `json:"kind"`
	Mass       *keptReading `json:"mass,omitempty"`
	Tint       *keptReading `json:"tint,omitempty"`
	WhiteShare float64      `json:"whiteShare,omitempty"`
	Pigments   []string     `json:"pigments,omitempty"`
	Paint      string       `json:"paint,omitempty"`
	Factor     float64      `json:"factor,omitempty"`
	Shift      float64      `json:"shift,omitempty"`
}

type keptReading struct {
	Lab      *[3]float64  `json:"lab,omitempty"`
	Hex      string       `json:"hex,omitempty"`
	Spectrum []float64    `json:"spectrum,omitempty"`
	Source   paint.Source `json:"source"`
	Medium   string       `json:"medium"`
	Judged   string       `json:"judged"`
}

func keepDefinition(d paint.Definition) keptDefinition {
	out := keptDefinition{versioned: definitionShape, Library: d.Library, Of: d.Version, Name: d.Name, Making: d.Making, Pigments: d.Pigments, K: d.K, S: d.S}
	if o := d.Origin; o != nil {
		out.Origin = &keptOrigin{Kind: o.Kind, Mass: (*keptReading)(o.Mass), Tint: (*keptReading)(o.Tint), WhiteShare: o.WhiteShare, Pigments: o.Pigments, Paint: o.Paint, Factor: o.Factor, Shift: o.Shift}
	}
	return out
}

func (d keptDefinition) open() paint.Definition {
	out := paint.Definition{Library: d.Library, Version: d.Of, Name: d.Name, Making: d.Making, Pigments: d.Pigments, K: d.K, S: d.S}
	if o := d.Origin; o != nil {
		out.Origin = &paint.Origin{Kind: o.Kind, Mass: (*paint.RawReading)(o.Mass), Tint: (*paint.RawReading)(o.Tint), WhiteShare: o.WhiteShare,
			Pigments: o.Pigments, Paint: o.Paint, Factor: o.Factor, Shift: o.Shift}
	}
	return out.WithinBounds() // curves had none once
}

// Snapshot is how a system is kept: its paints by reference, and each tube as it
// was when it was chosen, and each library paint that has changed since, so that a
// wheel keeps its paints.
type Snapshot struct {
	System wheel.Selection
	Frozen map[string]FrozenTube // by the id of the paint
}

// FrozenTube is a tube as it was.
type FrozenTube struct {
	Definition paint.Definition
	Strength   float64
}

type keptSnapshot struct {
	versioned
	System keptSelection         `json:"system"`
	Frozen map[string]keptFrozen `json:"frozen"`
}

type keptSelection struct {
	Kind   wheel.SystemKind `json:"kind"`
	Roles  [3][]string      `json:"roles"`
	Chosen [3][]string      `json:"chosen"`
	Riders keptRiders       `json:"riders"`
	Note   string           `json:"note"`
}

type keptRiders struct {
	White       string `json:"white,omitempty"`
	Black       string `json:"black,omitempty"`
	BlueGrey    string `json:"blueGrey,omitempty"`
	Convenience string `json:"convenience,omitempty"`
}

type keptFrozen struct {
	Definition keptDefinition `json:"definition"`
	Strength   float64        `json:"strength"`
}

func keepSnapshot(s Snapshot) keptSnapshot {
	out := keptSnapshot{snapshotShape, keptSelection{Kind: s.System.Kind, Roles: s.System.Roles, Chosen: s.System.Chosen, Riders: keptRiders(s.System.Riders), Note: s.System.Note}, map[string]keptFrozen{}}
	for k := range out.System.Roles { // a role without paints is a list without any
		out.System.Roles[k], out.System.Chosen[k] = append([]string{}, s.System.Roles[k]...), append([]string{}, s.System.Chosen[k]...)
	}
	for id, t := range s.Frozen {
		out.Frozen[id] = keptFrozen{keepDefinition(t.Definition), t.Strength}
	}
	return out
}

func (s keptSnapshot) open() Snapshot {
	out := Snapshot{wheel.Selection{Kind: s.System.Kind, Roles: s.System.Roles, Chosen: s.System.Chosen, Riders: wheel.RiderIDs(s.System.Riders), Note: s.System.Note}, map[string]FrozenTube{}}
	for id, t := range s.Frozen {
		out.Frozen[id] = FrozenTube{t.Definition.open(), t.Strength}
	}
	return out
}

// Settings are how a wheel is built and looked at.
type Settings struct {
	Medium, Light, Judged string
	Choices               wheel.Choices
	Bench                 bench.Settings // as the painter chose: its medium is that above, and what is usual is 0
}

type keptSettings struct {
	versioned
	Medium  string      `json:"medium"`
	Light   string      `json:"light"`
	Judged  string      `json:"judged"`
	Choices keptChoices `json:"choices"`
	Bench   *keptBench  `json:"bench,omitempty"`
}

// keptBench is how a wheel is painted; it came in later, and what is usual is left out.
type keptBench struct {
	Diameter float64     `json:"diameter,omitempty"`
	Inner    float64     `json:"inner,omitempty"`
	Coats    int         `json:"coats,omitempty"`
	Loss     float64     `json:"loss,omitempty"`
	Slots    string      `json:"slots,omitempty"`
	Graded   bool        `json:"graded,omitempty"` // instead of slots, in what was kept before 2026-12
	Gaps     bool        `json:"gaps,omitempty"`
	Brushes  int         `json:"brushes,omitempty"`
	Wells    int         `json:"wells,omitempty"`
	Waters   int         `json:"waters,omitempty"`
	Dryer    bool        `json:"dryer,omitempty"`
	Covered  bool        `json:"covered,omitempty"`
	Fill     string      `json:"fill,omitempty"`
	Pace     float64     `json:"pace,omitempty"`
	Hand     float64     `json:"hand,omitempty"`
	Measure  string      `json:"measure,omitempty"`
	One      float64     `json:"one,omitempty"`
	Nozzle   float64     `json:"nozzle,omitempty"`
	Residue  float64     `json:"residue,omitempty"`
	Knife    bool        `json:"knife,omitempty"`
	First    []int       `json:"first,omitempty"`
	Before   [][2]string `json:"before,omitempty"`
}

func keepBench(s bench.Settings) *keptBench {
	out := keptBench{Diameter: s.Diameter, Inner: s.Inner, Coats: s.Coats, Loss: s.Loss, Slots: string(s.Slots), Gaps: s.Gaps, Brushes: s.Brushes, Wells: s.Wells, Waters: s.Waters, Dryer: s.Dryer, Covered: s.Covered, Fill: string(s.Fill), Pace: s.Pace, Hand: s.HandPace, Measure: string(s.Scale.Measure), One: s.Scale.Size, Nozzle: s.Nozzle, Residue: s.Residue, Knife: s.Knife, First: s.First, Before: s.Before}
	if reflect.ValueOf(out).IsZero() {
		return nil
	}
	return &out
}

func (b *keptBench) open() bench.Settings {
	if b == nil {
		return bench.Settings{}
	}
	slots := bench.Slots(b.Slots)
	if b.Graded {
		slots = bench.Graded
	}
	return bench.Settings{
		Diameter: b.Diameter, Inner: b.Inner, Coats: b.Coats, Loss: b.Loss, Slots: slots, Gaps: b.Gaps, Brushes: b.Brushes, Wells: b.Wells, Waters: b.Waters, Dryer: b.Dryer,
		Covered: b.Covered, Fill: bench.Fill(b.Fill), Pace: b.Pace, HandPace: b.Hand, Scale: recipe.Scale{Measure: recipe.Measure(b.Measure), Size: b.One}, Nozzle: b.Nozzle, Residue: b.Residue, Knife: b.Knife,
		First: b.First, Before: b.Before,
	}
}

type keptChoices struct {
	Spacing string          `json:"spacing"`
	Order   string          `json:"order"`
	Names   string          `json:"names"`
	Called  *wheel.OwnNames `json:"called,omitempty"` // nil where no slot has a name of the painter's
	Top     string          `json:"top,omitempty"`
	CCW     bool            `json:"ccw,omitempty"`
	Six     bool            `json:"six,omitempty"`
	Raise   bool            `json:"raise,omitempty"`
	Rings   keptRings       `json:"rings"`
}

type keptRings struct {
	Tints   int    `json:"tints"`
	TintBy  string `json:"tintBy,omitempty"`
	Shades  int    `json:"shades"`
	ShadeBy string `json:"shadeBy,omitempty"`
	Wash    bool   `json:"wash"`
	Neutral bool   `json:"neutral"`
	Triple  bool   `json:"triple"`
}

func keepSettings(s Settings) keptSettings {
	c := s.Choices
	return keptSettings{versioned: settingsShape, Medium: s.Medium, Light: s.Light, Judged: s.Judged, Choices: keptChoices{Spacing: c.Spacing, Order: c.Order, Names: c.Names, Called: calledOrNil(c.Called), Top: c.Top, CCW: c.CCW, Six: c.Six, Raise: c.Raise,
		Rings: keptRings{Tints: c.Tints, TintBy: c.TintBy, Shades: c.Shades, ShadeBy: c.ShadeBy, Wash: c.Wash, Neutral: c.Neutral, Triple: c.Highlight}}, Bench: keepBench(s.Bench)}
}

func calledOrNil(names wheel.OwnNames) *wheel.OwnNames {
	if names == (wheel.OwnNames{}) {
		return nil
	}
	return &names
}

func (s keptSettings) open() Settings {
	c, r := s.Choices, s.Choices.Rings
	var called wheel.OwnNames
	if c.Called != nil {
		called = *c.Called
	}
	return Settings{Medium: s.Medium, Light: s.Light, Judged: s.Judged, Choices: wheel.Choices{Spacing: c.Spacing, Order: c.Order, Names: c.Names, Called: called, Top: c.Top, CCW: c.CCW, Six: c.Six, Raise: c.Raise,
		Tints: r.Tints, TintBy: r.TintBy, Shades: r.Shades, ShadeBy: r.ShadeBy, Wash: r.Wash, Neutral: r.Neutral, Highlight: r.Triple}, Bench: s.Bench.open()}
}

// same says that two contents would be kept as the same.
func (c WheelContent) same(other WheelContent) (bool, error) {
	kept := func(c WheelContent) ([]byte, error) {
		return json.Marshal([]any{c.Name, c.Kind, c.Archived, keepSnapshot(c.Snapshot), keepSettings(c.Settings)})
	}
	one, err := kept(c)
	if err != nil {
		return false, err
	}
	two, err := kept(other)
	return bytes.Equal(one, two), err
}

type keptSlotOutcome struct {
	versioned
	Name         string   `json:"name"`
	HueWord      string   `json:"computed"`
	Verdict      string   `json:"came"`
	HueRight     bool     `json:"hueRight"`
	VerdictRight bool     `json:"verdictRight"`
	VerdictNear  bool     `json:"verdictNear"`
	Points       int      `json:"points"`
	Could        []string `json:"couldBe,omitempty"`
}

func keepSlotOutcome(o journal.SlotOutcome) keptSlotOutcome {
	return keptSlotOutcome{versioned: slotOutcomeShape, Name: o.Name, HueWord: o.HueWord, Verdict: o.Verdict, HueRight: o.HueRight, VerdictRight: o.VerdictRight, VerdictNear: o.VerdictNear, Points: o.Points, Could: o.Could}
}

func (o keptSlotOutcome) open() journal.SlotOutcome {
	return journal.SlotOutcome{Name: o.Name, HueWord: o.HueWord, Verdict: o.Verdict, HueRight: o.HueRight, VerdictRight: o.VerdictRight, VerdictNear: o.VerdictNear, Points: o.Points, Could: o.Could}
}

type keptExpected struct {
	versioned
	HueWord string  `json:"hueWord"`
	Verdict string  `json:"verdict"`
	Mud     keptMud `json:"mud"`
}

type keptMud struct {
	Nowhere bool    `json:"nowhere"`
	At      float64 `json:"at"`
}

func keepExpected(e journal.Expected) keptExpected {
	return keptExpected{expectedShape, e.HueWord, e.Verdict, keptMud(e.Mud)}
}

func (e keptExpected) open() journal.Expected {
	return journal.Expected{HueWord: e.HueWord, Verdict: e.Verdict, Mud: journal.MudStart(e.Mud)}
}

// keptPairOutcome: what is right is counted by SQL, under these names.
type keptPairOutcome struct {
	versioned
	Section      string   `json:"section"`
	Spacing      string   `json:"spacing"`
	HueWord      string   `json:"computed"`
	Verdict      string   `json:"came"`
	Retention    float64  `json:"retention"`
	Mud          keptMud  `json:"mudCame"`
	HueRight     bool     `json:"hueRight"`
	VerdictRight bool     `json:"verdictRight"`
	MudRight     bool     `json:"mudRight"`
	Points       int      `json:"points"`
	Could        []string `json:"couldBe,omitempty"`
}

func keepPairOutcome(o journal.PairOutcome) keptPairOutcome {
	return keptPairOutcome{versioned: pairOutcomeShape, Section: o.Section, Spacing: o.Spacing, HueWord: o.HueWord, Verdict: o.Verdict, Retention: o.Retention, Mud: keptMud(o.Mud), HueRight: o.HueRight, VerdictRight: o.VerdictRight, MudRight: o.MudRight, Points: o.Points, Could: o.Could}
}

func (o keptPairOutcome) open() journal.PairOutcome {
	return journal.PairOutcome{Section: o.Section, Spacing: o.Spacing, HueWord: o.HueWord, Verdict: o.Verdict, Retention: o.Retention, Mud: journal.MudStart(o.Mud),
		HueRight: o.HueRight, VerdictRight: o.VerdictRight, MudRight: o.MudRight, Points: o.Points, Could: o.Could}
}

// keptTruth is what becomes of a pairing that a class answers.
type keptTruth struct {
	versioned
	Section   string     `json:"section"`
	HueWord   string     `json:"hueWord"`
	Verdict   string     `json:"verdict"`
	Retention float64    `json:"retention"`
	Mud       keptMud    `json:"mud"`
	Begins    [2]float64 `json:"begins"`
	Could     []string   `json:"couldBe,omitempty"`
	Right     keptRights `json:"right"`
}

type keptRights struct {
	Hues     [12]bool                `json:"hues"`
	Verdicts [4]bool                 `json:"verdicts"`
	Mud      [journal.MudPlaces]bool `json:"mud"`
	NoMud    bool                    `json:"noMud"`
}

func keepTruth(t journal.Truth) keptTruth {
	return keptTruth{truthShape, t.Section, t.HueWord, t.Verdict, t.Retention, keptMud(t.Mud), t.Begins, t.Could, keptRights(t.Right)}
}

func (t keptTruth) open() journal.Truth {
	return journal.Truth{Section: t.Section, HueWord: t.HueWord, Verdict: t.Verdict, Retention: t.Retention, Mud: journal.MudStart(t.Mud), Begins: t.Begins, Could: t.Could, Right: journal.Rights(t.Right)}
}

// keptClassTally counts what a class said.
type keptClassTally struct {
	versioned
	Hues     [12]int                `json:"hues"`
	Verdicts [4]int                 `json:"verdicts"`
	Mud      [journal.MudPlaces]int `json:"mud"`
	NoMud    int                    `json:"noMud"`
}

func keepClassTally(t journal.ClassTally) keptClassTally {
	return keptClassTally{classTallyShape, t.Hues, t.Verdicts, t.Mud, t.NoMud}
}

func (t keptClassTally) open() journal.ClassTally {
	return journal.ClassTally{Hues: t.Hues, Verdicts: t.Verdicts, Mud: t.Mud, NoMud: t.NoMud}
}
