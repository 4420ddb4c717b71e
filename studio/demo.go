package studio

import (
	"context"
	_ "embed"
	"encoding/csv"
	"fmt"
	"strconv"
	"strings"

	"gyrophane/core/certainty"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
	"gyrophane/files"
	"gyrophane/store"
)

//go:embed data/demo-box.json
var demoBox []byte

//go:embed data/demo-rounds.csv
var demoRounds string

// DemoBox is the box of the made-up demo studio.
func DemoBox() (out []paint.Tube, err error) {
	rows, _, err := files.ReadBox(demoBox)
	if err != nil {
		return nil, err
	}
	for _, r := range rows {
		if r.Wrong != "" {
			return nil, fmt.Errorf("%s: %s", r.Where, r.Wrong)
		}
		out = append(out, r.Tube)
	}
	return out, nil
}

// DemoWanted are the colours that the panels of the made-up demo studio need.
var DemoWanted = []reach.Wanted{
	{Name: "starfish orange", Colour: "#f0662b"}, {Name: "anemone red", Colour: "#c8203c"}, {Name: "mussel violet", Colour: "#4f3d78"}, {Name: "shallow-water turquoise", Colour: "#00a6b0"},
	{Name: "sea-lettuce green", Colour: "#569c2e"}, {Name: "kelp olive", Colour: "#6e6228"}, {Name: "wet-stone grey", Colour: "#656e78"},
}

// demoWheels are the systems of a made-up studio that paints panels of tide-pool
// life; the last is the one shown first.
func demoWheels() (out []store.WheelContent) {
	for _, d := range []struct {
		name, note string
		kind       wheel.SystemKind
		roles      [3][]string
	}{
		{"Kelp and wet stone", "a dull red earth for quiet oranges and violets", wheel.Double, [3][]string{{"PY184", "PY43"}, {"PR122", "PBr7-burnt-sienna"}, {"PB29", "PB15:3"}}},
		{"Six from the harbour", "", wheel.Split, [3][]string{{"PY184", "PY65"}, {"PR255", "PR122"}, {"PB29", "PB15:3"}}},
		{"Sea lettuce and mussel", "", wheel.CMY, [3][]string{{"PY74"}, {"PR122"}, {"PB15:3"}}},
		{"Starfish and anemone", "", wheel.RYB, [3][]string{{"PY65"}, {"PR254"}, {"PB29"}}},
	} {
		selection := wheel.Selection{Kind: d.kind, Note: d.note, Roles: d.roles, Riders: wheel.RiderIDs{White: "PW6", BlueGrey: "blue-grey"}}
		out = append(out, store.WheelContent{
			Name: d.name, Kind: string(d.kind), Snapshot: store.Snapshot{System: selection},
			Settings: store.Settings{Medium: "acrylic", Light: "D65", Judged: paint.Judged(false), Choices: wheel.UsualChoices()},
		})
	}
	return out
}

// demoGuess is what the made-up demo studio said of a pairing in practice.
type demoGuess struct {
	daysAgo int
	PairGuess
}

// demoGuesses are the rounds of practice of the made-up demo studio, one after
// the other.
func demoGuesses() (out []demoGuess, err error) {
	r := csv.NewReader(strings.NewReader(demoRounds))
	r.Comment = '#'
	rows, err := r.ReadAll()
	if err != nil {
		return nil, fmt.Errorf("demo rounds: %w", err)
	}
	for _, row := range rows[1:] {
		days, err := strconv.Atoi(row[0])
		if err != nil {
			return nil, fmt.Errorf("demo rounds: %w", err)
		}
		e := journal.Expected{HueWord: row[3], Verdict: row[4], Mud: journal.MudStart{Nowhere: row[5] == ""}}
		if !e.Mud.Nowhere {
			if e.Mud.At, err = strconv.ParseFloat(row[5], 64); err != nil {
				return nil, fmt.Errorf("demo rounds: %w", err)
			}
		}
		out = append(out, demoGuess{days, PairGuess{row[1], row[2], e}})
	}
	return out, nil
}

// scoredRounds are the demo studio's rounds with what became of the guesses.
func scoredRounds() (out []store.DemoRound, err error) {
	said, err := demoGuesses()
	if err != nil {
		return nil, err
	}
	for i, d := range said {
		if i == 0 || d.daysAgo != said[i-1].daysAgo {
			out = append(out, store.DemoRound{DaysAgo: d.daysAgo, Round: store.Round{Spacing: path.ByHue.String()}})
		}
		round := &out[len(out)-1]
		g, err := score(paint.Find, d.PairGuess, path.ByHue, certainty.Usual)
		if err != nil {
			return nil, err
		}
		g.Place = len(round.Guesses)
		round.Guesses, round.Pairs = append(round.Guesses, g), append(round.Pairs, store.Couple{A: g.A, B: g.B})
		round.Length = len(round.Pairs)
	}
	return out, nil
}

// Demo is what the made-up demo studio begins with.
func Demo() (store.Demo, error) {
	box, err := DemoBox()
	if err != nil {
		return store.Demo{}, err
	}
	rounds, err := scoredRounds()
	if err != nil {
		return store.Demo{}, err
	}
	demo := store.Demo{Wheels: demoWheels(), Box: newTubes(box), Rounds: rounds, Sittings: demoSittings}
	for _, w := range DemoWanted {
		demo.Wanted = append(demo.Wanted, store.WantedColour{Name: w.Name, Colour: w.Colour})
	}
	return demo, nil
}

// SeedDemo makes the made-up demo studio in a store: what is there already stays
// as it is.
func SeedDemo(ctx context.Context, s *store.Store) error {
	demo, err := Demo()
	if err != nil {
		return err
	}
	return s.SeedDemo(ctx, demo)
}
