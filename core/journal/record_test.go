package journal

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
)

func TestExpectationsAreCountedByMonthAndSection(t *testing.T) {
	day := func(month time.Month) time.Time { return time.Date(2026, month, 3, 9, 0, 0, 0, time.UTC) }
	var all []Judged
	for n := range 6 {
		all = append(all, Judged{At: day(10), Section: "green", Said: paint.Clean, Came: paint.Clean, HueRight: true, VerdictRight: true})
		violet := Judged{At: day(11), Section: "violet", Said: paint.Clean, Came: paint.Softened, HueRight: true}
		if n == 0 {
			violet.Came, violet.VerdictRight, violet.Painted = paint.Clean, true, true
		}
		all = append(all, violet)
	}
	all = append(all, Judged{At: day(11), Section: "orange", Said: paint.Muddy, Came: paint.Clean})
	months := Months(all)
	require.Len(t, months, 2)
	assert.Equal(t, time.November, months[0].Month, "the last one first")
	assert.Equal(t, Tally{Expectations: 7, HuesRight: 6, VerdictsRight: 1, Brighter: 1, Duller: 5}, months[0].Tally)
	assert.Equal(t, 1, months[0].Painted.Expectations)

	eyes := Eyes(all)
	require.Len(t, eyes, 3)
	assert.Equal(t, []string{"orange", "violet", "green"}, []string{eyes[0].Section, eyes[1].Section, eyes[2].Section}, "the least right first")
	assert.Equal(t, "too few to tell", eyes[0].Says)
	assert.Equal(t, "they come out duller than you expect, 5 times of 6", eyes[1].Says)
	assert.Equal(t, "your eye is right", eyes[2].Says)
	assert.Empty(t, Months(nil))
}

func TestWhereAnEyeIsWrongIsSaid(t *testing.T) {
	for _, c := range []struct {
		said, came paint.Verdict
		hue        bool
		says       string
	}{
		{paint.Muddy, paint.Quiet, true, "they come out brighter than you expect, 5 times of 5"},
		{paint.Quiet, paint.Softened, false, "they come out another hue than you expect, 5 times of 5"},
		{paint.Quiet, paint.Softened, true, "now right, now wrong"},
	} {
		var all []Judged
		for range 5 {
			all = append(all, Judged{Section: "green", Said: c.said, Came: c.came, HueRight: c.hue})
		}
		assert.Equal(t, c.says, Eyes(all)[0].Says)
	}
}
