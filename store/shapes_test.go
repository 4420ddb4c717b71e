package store

import (
	"context"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/journal"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
	"gyrophane/store/storetest"
)

// The rows were written by the program before its columns had shapes of their own,
// and by the first one that had them.
func TestRowsOfEveryShapeOpen(t *testing.T) {
	for _, file := range []string{"testdata/kept_before_shapes.sql", "testdata/kept_as_shape_1.sql"} {
		t.Run(file, func(t *testing.T) {
			ctx := context.Background()
			s, err := Open(storetest.Database(t))
			require.NoError(t, err)
			t.Cleanup(func() { require.NoError(t, s.Close()) })
			require.NoError(t, s.Migrate(ctx))
			rows, err := os.ReadFile(file)
			require.NoError(t, err)
			require.NoError(t, s.db.Exec(string(rows)).Error)

			tubes, err := s.Tubes(ctx, 1)
			require.NoError(t, err)
			require.Len(t, tubes, 4)
			assert.Equal(t, "PB29", tubes[0].Definition.Library)
			assert.Equal(t, "student", tubes[0].Details().Grade)
			own := tubes[1].Definition
			assert.Equal(t, "rock pool violet", own.Name)
			assert.Equal(t, []string{"PV23", "PR122"}, own.Pigments)
			assert.Equal(t, &[3]float64{28, 22, -18}, own.Origin.Mass.Lab)
			_, err = own.Paint("tube-2", 1)
			require.NoError(t, err)

			w, err := s.Wheel(ctx, 1, 1)
			require.NoError(t, err)
			assert.Equal(t, wheel.Selection{
				Kind: "own", Roles: [3][]string{{"PY74"}, {"tube-2"}, {"tube-1"}}, Chosen: [3][]string{{}, {"tube-2", "tube-1"}, {}},
				Riders: wheel.RiderIDs{White: "PW6"}, Note: "two of them from the box",
			}, w.Snapshot.System)
			assert.Equal(t, 0.5, w.Snapshot.Frozen["tube-1"].Strength)
			assert.Equal(t, own, w.Snapshot.Frozen["tube-2"].Definition)
			assert.Equal(t, Settings{"oil", "A", "wet", wheel.Choices{
				Spacing: "contrast", Order: "secondary", Names: "painters", Top: "red", CCW: true,
				Tints: 2, TintBy: "white", Shades: 1, Wash: true, Neutral: true, Highlight: true,
			}, bench.Settings{}}, w.Settings)
			earlier, err := s.WheelHistory(ctx, 1, 1)
			require.NoError(t, err)
			assert.Equal(t, w.WheelContent, earlier[0].WheelContent)

			said, err := s.Predictions(ctx, 1, 1)
			require.NoError(t, err)
			assert.Equal(t, journal.SlotOutcome{Name: "orange", HueWord: "red-orange", Verdict: "softened", HueRight: true, VerdictNear: true, Points: 3}, said[0].Outcome)

			guesses, err := s.Guesses(ctx, 1)
			require.NoError(t, err)
			assert.Equal(t, journal.Expected{HueWord: "green", Verdict: "softened", Mud: journal.MudStart{At: 0.4}}, guesses[0].Said)
			assert.Equal(t, journal.PairOutcome{Section: "green", Spacing: "hue", HueWord: "green", Verdict: "softened", Retention: 0.354, Mud: journal.MudStart{Nowhere: true},
				HueRight: true, VerdictRight: true, Points: 4}, guesses[0].Outcome)
			scores, err := s.SectionScores(ctx, 1)
			require.NoError(t, err)
			right := 0
			for _, score := range scores {
				right += score.HueRight
			}
			assert.Positive(t, right, "what SQL counts has the same names still")
			r, answers, err := s.OpenRound(ctx, 1)
			require.NoError(t, err)
			assert.Len(t, answers, 1)
			assert.Len(t, r.Pairs, r.Length)
		})
	}
}

func TestWhatANewerProgramKeptIsNotMisread(t *testing.T) {
	ctx := context.Background()
	s, err := Open(storetest.Database(t))
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	require.NoError(t, s.Migrate(ctx))
	ada, err := s.CreatePainter(ctx, "Ada", "")
	require.NoError(t, err)
	_, err = s.CreateWheel(ctx, ada.ID, WheelContent{Name: "Rock pool", Kind: "triad"})
	require.NoError(t, err)
	var written string
	require.NoError(t, s.db.Raw("select snapshot::text from wheels").Scan(&written).Error)
	assert.Contains(t, strings.ReplaceAll(written, " ", ""), `"v":1`, "what is written says its shape")
	require.NoError(t, s.db.Exec(`update wheels set snapshot = jsonb_set(snapshot, '{v}', '2')`).Error)
	_, err = s.Wheels(ctx, ada.ID)
	assert.ErrorContains(t, err, "written by a newer Gyrophane")
}

func TestHowAWheelIsPaintedIsKeptWithIt(t *testing.T) {
	set := bench.Settings{
		Diameter: 210, Inner: 40, Coats: 2, Loss: 0.3, Slots: bench.Graded, Gaps: true, Brushes: 2, Wells: 4, Waters: 2, Dryer: true, Covered: true, Fill: bench.FromStronger, Pace: 1.5,
		Scale: recipe.Scale{Measure: recipe.Drops, Size: 0.04}, Nozzle: 8, Residue: 0.02, Knife: true, First: []int{1}, Before: [][2]string{{"violet", "yellow"}},
	}
	assert.Equal(t, set, keepBench(set).open())
	assert.Nil(t, keepBench(bench.Settings{}))
	var none *keptBench
	assert.Equal(t, bench.Settings{}, none.open())
}
