package journal

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"gyrophane/core/certainty"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// MudStart is where a way first turns muddy, counted from its first paint.
type MudStart struct {
	Nowhere bool
	At      float64 // along the way, 0 to 1, in the measure of its spacing; 0 where it is nowhere
}

// StartOfMud finds where a path first turns muddy.
func StartOfMud(p *path.Path, s path.Spacing) MudStart {
	zones := p.Mud()
	if len(zones) == 0 {
		return MudStart{Nowhere: true}
	}
	return MudStart{At: p.ReachedAt(zones[0].From, s)}
}

// Predictable says whether there is something to predict of a path: two paints that can be told
// apart, and a hue to come of them: a tint has that of its colour, and a shade no verdict of its own.
func Predictable(p *path.Path) bool {
	a, b := p.A.Alone(), p.B.Alone()
	both := paint.Between(&a, &b, 0.5)
	return !p.Indistinguishable() && !both.Neutral() && !both.Shade()
}

// Guess is what a painter expects of a pairing before it is shown: the hue and
// verdict of the secondary, and where the way turns muddy.
type Guess struct {
	Prediction
	Mud MudStart
}

// ParseGuess reads a guess; at is a place of the way, 0 to 1.
func ParseGuess(hue, verdict string, nowhere bool, at float64) (Guess, error) {
	p, err := ParsePrediction(hue, verdict)
	if err != nil {
		return Guess{}, err
	}
	if nowhere {
		at = 0
	}
	if !(at >= 0 && at <= 1) {
		return Guess{}, fmt.Errorf("mud cannot start at %v: give a place of the way from 0 to 1, or say nowhere", at)
	}
	return Guess{p, MudStart{nowhere, at}}, nil
}

// MaxGuessPoints is what a guess is worth that is right in everything.
const MaxGuessPoints = MaxSlotPoints + mudPoints

// The start of the mud is right within an eighth of the way, near within a
// quarter.
const (
	mudPoints = 2
	mudRight  = 0.125
	mudNear   = 0.25
)

// GuessScore is how a guess stood up.
type GuessScore struct {
	Score
	MudRight, MudNear bool
}

// Open is what of a pairing may go either way.
type Open struct {
	Could []paint.Verdict // that it could turn out as, where it is not sure nor likely; none else
	Mud   certainty.Edge  // where its mud begins
}

// openOf is what of a path's middle and of its mud may go either way.
func openOf(p *path.Pairing, s path.Spacing, doubt certainty.Doubts) (out Open) {
	if said := certainty.OfPath(p.Path, s, p.Middle.Under.Verdict, p.Middle.Parts, doubt); said != nil && said.Sure == certainty.EitherWay {
		out.Could = said.Could
	}
	if edges := certainty.MudEdges(p.Path, s, doubt); len(edges) > 0 {
		out.Mud = edges[0][0]
	}
	return out
}

// Against scores a guess against a pairing: as a prediction of its secondary,
// and two points more for the start of the mud, one when it is near. What may go either way, in tubes as they differ,
// does not count against it: a verdict that it could turn out as, mud or none where that is one of them, and any
// place of the stretch in which mud begins.
func (g Guess) Against(u paint.Undertone, mud MudStart, open Open) GuessScore {
	s := GuessScore{Score: g.Prediction.Against(u, open.Could...)}
	off := math.Abs(g.Mud.At - mud.At)
	switch {
	case g.Mud.Nowhere != mud.Nowhere && slices.Contains(open.Could, paint.Muddy), !g.Mud.Nowhere && !mud.Nowhere && open.Mud.High > open.Mud.Low && g.Mud.At >= open.Mud.Low && g.Mud.At <= open.Mud.High:
		s.MudRight = true
		s.Points += mudPoints
	case g.Mud.Nowhere != mud.Nowhere:
	case off <= mudRight:
		s.MudRight = true
		s.Points += mudPoints
	case off <= mudNear:
		s.MudNear = true
		s.Points += mudPoints / 2
	}
	return s
}

// PairKey tells two paints and a spacing from all others: whoever stands first, and
// until one of the paints becomes another, as a relearned tube does.
func PairKey(a, b *paint.Paint, s path.Spacing) string {
	x, y := fmt.Sprintf("%s@%016x", a.ID, a.Fingerprint()), fmt.Sprintf("%s@%016x", b.ID, b.Fingerprint())
	if y < x {
		x, y = y, x
	}
	return fmt.Sprintf("%s %s %s", s, x, y)
}

// PairKeyWith is a key whose paints go by other ids now.
func PairKeyWith(key string, is func(id string) string) string {
	fields := strings.Fields(key)
	if len(fields) < 3 {
		return key
	}
	at := len(fields) - 2
	for i, field := range fields[at:] {
		if id, stands, whole := strings.Cut(field, "@"); whole {
			fields[at+i] = is(id) + "@" + stands
		}
	}
	slices.Sort(fields[at:])
	return strings.Join(fields, " ")
}
