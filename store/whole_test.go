package store

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
	"gyrophane/store/storetest"
)

// roundTrips keeps a value of which every field is filled, opens it again, and finds all of it.
// Mend sets what only some values are allowed for.
func roundTrips[V any, K interface{ version() int }](t *testing.T, of shape[V, K], mend func(*V)) {
	t.Helper()
	var v V
	storetest.Fill(&v)
	if mend != nil {
		mend(&v)
	}
	data, err := json.Marshal(of.keep(v))
	require.NoError(t, err)
	var kept K
	require.NoError(t, json.Unmarshal(data, &kept))
	assert.Equal(t, of.now.Version, kept.version(), "%T carries its version", kept)
	assert.Equal(t, v, of.open(kept), "%T", v)
}

func TestEveryFieldThatIsKeptOpensAgain(t *testing.T) {
	roundTrips(t, shape[paint.Definition, keptDefinition]{definitionShape, keepDefinition, keptDefinition.open}, nil)
	roundTrips(t, shape[Snapshot, keptSnapshot]{snapshotShape, keepSnapshot, keptSnapshot.open}, nil)
	roundTrips(t, shape[Settings, keptSettings]{settingsShape, keepSettings, keptSettings.open}, func(s *Settings) {
		s.Bench.Medium = paint.Medium{} // that of the settings is kept
	})
	roundTrips(t, shape[bench.Event, keptEvent]{eventShape, keepEvent, keptEvent.open}, func(e *bench.Event) {
		e.At = e.At.UTC()
	})
	roundTrips(t, shape[bench.Worked, keptWorked]{workedShape, keepWorked, keptWorked.open}, nil)
	roundTrips(t, shape[journal.SlotOutcome, keptSlotOutcome]{slotOutcomeShape, keepSlotOutcome, keptSlotOutcome.open}, nil)
	roundTrips(t, shape[journal.Expected, keptExpected]{expectedShape, keepExpected, keptExpected.open}, nil)
	roundTrips(t, shape[journal.PairOutcome, keptPairOutcome]{pairOutcomeShape, keepPairOutcome, keptPairOutcome.open}, nil)
	roundTrips(t, shape[SittingPlan, keptSittingPlan]{sittingPlanShape, keepSittingPlan, keptSittingPlan.open}, func(p *SittingPlan) {
		p.Settings.Medium = paint.Medium{} // that of the plan is kept
		for i := range p.Sheet.Regions {
			r := &p.Sheet.Regions[i]
			r.Kind, r.Verdict, r.Recipe, r.Mixture = wheel.Secondary, paint.Softened, nil, paint.Mixture{} // recipes are kept beside them
		}
		for i := range p.Recipes {
			for k := range p.Recipes[i] {
				for n := range p.Recipes[i][k].Of {
					p.Recipes[i][k].Of[n].Of = nil // as deep as recipes go
				}
			}
		}
	})
}
