package journal

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
)

func guessOf(t *testing.T, hue, verdict string, mud MudStart) Guess {
	t.Helper()
	g, err := ParseGuess(hue, verdict, mud.Nowhere, mud.At)
	require.NoError(t, err)
	return g
}

// couples are pairings of the library that can be predicted.
func couples() (out []path.Couple) {
	for _, ids := range [][2]string{{"PY74", "PB15:3"}, {"PY74", "PB29"}, {"PR122", "PB29"}, {"PR101", "PB15:3"}, {"PY74", "PR122"}} {
		out = append(out, path.Couple{A: painttest.Paint(ids[0]), B: painttest.Paint(ids[1])})
	}
	return out
}

// What is right for a class is what is right for a painter alone, whatever is guessed.
func TestAClassIsScoredAsAPainterIs(t *testing.T) {
	random := rand.New(rand.NewPCG(7, 35))
	rights := 0
	for _, c := range couples() {
		for _, spacing := range path.Spacings {
			truth, err := TruthOf(c.A, c.B, spacing, certainty.Usual)
			require.NoError(t, err)
			for range 15 {
				said := Expected{colour.HueWords()[random.IntN(12)], paint.ChromaticVerdicts[random.IntN(4)].String(), MudStart{Nowhere: random.IntN(3) == 0, At: float64(random.IntN(MudPlaces)) / (MudPlaces - 1)}}
				alone, _, err := ScorePair(c.A, c.B, spacing, said, certainty.Usual)
				require.NoError(t, err)
				hue, verdict, mud := truth.Right.Of(guessOf(t, said.HueWord, said.Verdict, said.Mud))
				assert.Equal(t, [3]bool{alone.HueRight, alone.VerdictRight, alone.MudRight}, [3]bool{hue, verdict, mud}, "%s with %s: %v", c.A.ID, c.B.ID, said)
				if hue && verdict && mud {
					rights++
				}
			}
		}
	}
	assert.Positive(t, rights)
}

func TestATallyCountsEveryGuessOnce(t *testing.T) {
	truth, err := TruthOf(painttest.Paint("PY74"), painttest.Paint("PB15:3"), path.Spacings[0], certainty.Usual)
	require.NoError(t, err)
	var all, first, second ClassTally
	random := rand.New(rand.NewPCG(1, 2))
	right := ClassScore{}
	for i := range 300 {
		g := guessOf(t, colour.HueWords()[random.IntN(12)], paint.ChromaticVerdicts[random.IntN(4)].String(), MudStart{Nowhere: i%4 == 0, At: random.Float64()})
		hue, verdict, mud := truth.Right.Of(g)
		right.Hue.add(1, hue)
		right.Verdict.add(1, verdict)
		right.Mud.add(1, mud)
		all.Count(g)
		if i%2 == 0 {
			first.Count(g)
		} else {
			second.Count(g)
		}
	}
	first.Add(second)
	assert.Equal(t, all, first)
	assert.Equal(t, right, all.Against(truth.Right))
	assert.Equal(t, 300, right.Hue.Said)
	assert.InDelta(t, float64(right.Mud.Right)/300, right.Mud.Share(), 1e-12)
	assert.Zero(t, Counted{}.Share())
}

func TestHandsThatCannotBeCountedAreRefused(t *testing.T) {
	for name, change := range map[string]func(*ClassTally){
		"a hue":     func(t *ClassTally) { t.Hues[11] = -1 },
		"a verdict": func(t *ClassTally) { t.Verdicts[0] = MostCounted + 1 },
		"a place":   func(t *ClassTally) { t.Mud[MudPlaces-1] = -3 },
		"nowhere":   func(t *ClassTally) { t.NoMud = math.MaxInt },
	} {
		tally := ClassTally{}
		require.NoError(t, tally.Check())
		change(&tally)
		assert.ErrorContains(t, tally.Check(), "hands cannot be counted", name)
	}
}

func TestWhatHasNoTruthIsRefused(t *testing.T) {
	yellow, white := painttest.Paint("PY74"), painttest.Paint("PW6")
	_, err := TruthOf(yellow, yellow, path.Spacings[0], certainty.Usual)
	assert.ErrorContains(t, err, "with itself")
	grey := painttest.Paint("PBk9")
	_, err = TruthOf(white, grey, path.Spacings[0], certainty.Usual)
	assert.ErrorContains(t, err, "no hue between them")
}

func TestAClassHasAnEyeForEachSection(t *testing.T) {
	softened := Truth{Section: "green", Verdict: "softened"}
	softened.Right.Hues[6] = true
	softened.Right.Verdicts[2] = true
	softened.Right.NoMud = true
	eyes := ClassEyes([]Answered{
		{softened, ClassTally{Hues: [12]int{6: 10, 7: 5}, Verdicts: [4]int{6, 1, 5, 3}, NoMud: 8}},
		{Truth{Section: "violet", Verdict: "muddy"}, ClassTally{Verdicts: [4]int{3: 4}}},
		{softened, ClassTally{Hues: [12]int{6: 1}, Verdicts: [4]int{2: 1}, Mud: [MudPlaces]int{4: 1}}},
	})
	require.Len(t, eyes, 2)
	assert.Equal(t, ClassEye{Section: "green", Pairings: 2, ClassScore: ClassScore{Hue: Counted{16, 11}, Verdict: Counted{16, 6}, Mud: Counted{9, 8}}, Brighter: 3, Duller: 6}, eyes[0])
	assert.Equal(t, "violet", eyes[1].Section)
	assert.Zero(t, eyes[1].Brighter+eyes[1].Duller, "whoever says muddy of what is muddy says nothing brighter")
}
