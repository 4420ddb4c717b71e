package paint

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAMixtureIsJudgedByWhatItReachesAndByWhatItKeeps(t *testing.T) {
	for _, c := range []struct {
		retention, kept float64
		want            Verdict
		words           string
	}{
		{0.90, 0.2, Clean, "clean"},
		{0.72, 0.2, Clean, "just clean"},
		{0.70, 0.2, Clean, "just clean"},
		{0.695, 0.2, Clean, "just clean"}, // rounded before it is judged
		{0.694, 0.2, Softened, "nearly clean"},
		{0.69, 0.95, Quiet, "nearly clean"},
		{0.50, 0.95, Quiet, "quiet"},
		{0.10, 0.86, Quiet, "just quiet"},
		{0.10, 0.845, Quiet, "just quiet"},
		{0.10, 0.84, Softened, "nearly quiet"},
		{0.50, 0.70, Softened, "softened"},
		{0.10, 0.70, Softened, "softened"},
		{0.10, 0.61, Softened, "just softened"},
		{0.34, 0.20, Softened, "just softened"},
		{0.34, 0.70, Softened, "softened"}, // soft twice over
		{0.32, 0.20, Muddy, "nearly softened"},
		{0.10, 0.58, Muddy, "nearly softened"},
		{0.10, 0.20, Muddy, "muddy"},
	} {
		u := Undertone{Retention: c.retention, Kept: c.kept, Chroma: 0.1, quiet: true}
		u.Verdict = (&Mixture{hued: true, quiet: true}).judge(u)
		assert.Equal(t, c.want, u.Verdict, "%+v", c)
		assert.Equal(t, c.words, u.VerdictWords(), "%+v", c)
	}
}

// Two paints that are clean alone never make a quiet one.
func TestQuietNeedsAPaintThatIsQuietItself(t *testing.T) {
	u := Undertone{Retention: 0.5, Kept: 0.95, Chroma: 0.1}
	u.Verdict = (&Mixture{hued: true}).judge(u)
	assert.Equal(t, Softened, u.Verdict)
	assert.Equal(t, "softened", u.VerdictWords())
	for i, a := range Library() {
		for _, b := range Library()[:i] {
			ua, ub := a.Undertone(), b.Undertone()
			m, err := Mix(Part{a, 1}, Part{b, 1})
			require.NoError(t, err)
			if u := m.Undertone(); u.Verdict == Quiet {
				assert.True(t, ua.Verdict == Quiet || ub.Verdict == Quiet, "%s and %s", a.ID, b.ID)
			}
		}
	}
}

func TestWhatHasNoHueIsMuddyOnlyWhenItsPaintsHadOne(t *testing.T) {
	grey := Undertone{Retention: 0.2, Kept: 1, Chroma: 0.029}
	assert.Equal(t, Muddy, (&Mixture{hued: true}).judge(grey))
	assert.Equal(t, Neutral, (&Mixture{}).judge(grey))
	grey.Chroma = 0.2
	assert.Equal(t, Neutral, (&Mixture{neutral: true, hued: true}).judge(grey), "whites and blacks alone")
}

func TestAVerdictOnRetentionAloneIsNeverQuiet(t *testing.T) {
	for retention, want := range map[float64]Verdict{0: Muddy, 0.324: Muddy, SoftenedFrom(): Softened, 0.694: Softened, CleanFrom(): Clean, 1: Clean} {
		assert.Equal(t, want, VerdictAt(retention), retention)
	}
}

func TestAPaintAloneIsCleanOrQuiet(t *testing.T) {
	quiet := map[string]bool{}
	for _, p := range Library() {
		u := p.Undertone()
		assert.InDelta(t, 1, u.Kept, 1e-12, p.ID)
		switch p.Family {
		case "white", "black":
			assert.Equal(t, Neutral, u.Verdict, p.ID)
		default:
			assert.Contains(t, []Verdict{Clean, Quiet}, u.Verdict, p.ID)
			quiet[p.ID] = u.Verdict == Quiet
		}
	}
	for _, earth := range []string{"PBr7-raw-umber", "PBr7-burnt-umber", "PR101"} {
		assert.True(t, quiet[earth], earth)
	}
}

// A tint of a paint or mixture has its undertone, retention, kept share and verdict.
func TestATintIsJudgedAsItsColour(t *testing.T) {
	r := rand.New(rand.NewPCG(14, 3))
	var coloured []*Paint
	for _, p := range Library() {
		if p.Family != "white" {
			coloured = append(coloured, p)
		}
	}
	zinc, err := Find("PW4")
	require.NoError(t, err)
	for range 300 {
		a, b := coloured[r.IntN(len(coloured))], coloured[r.IntN(len(coloured))]
		colour, err := Mix(Part{a, 1 + r.Float64()}, Part{b, 1 + r.Float64()})
		require.NoError(t, err)
		white := []*Paint{titanium, zinc}[r.IntN(2)]
		share := 0.01 + 0.9*r.Float64()
		tint := Between(&white.alone, &colour, share)
		if r.IntN(3) == 0 {
			tint = Between(&titanium.alone, &tint, 0.5)
		}
		of, is := colour.Undertone(), tint.Undertone()
		assert.InDelta(t, of.Chroma, is.Chroma, 1e-6)
		assert.InDelta(t, of.Retention, is.Retention, 1e-6)
		assert.InDelta(t, of.Kept, is.Kept, 1e-6)
		assert.Equal(t, of.Verdict, is.Verdict, "%s, %s, %s", a.ID, b.ID, white.ID)
	}
}
