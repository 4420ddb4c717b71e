package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

// misread are readings of the demo's sitting that is under way, as a file: as if a tube had been another.
func misread(t *testing.T, tube, really string) string {
	t.Helper()
	find := func(ids ...string) (out []*paint.Paint) {
		for _, id := range ids {
			p, err := paint.Find(id)
			require.NoError(t, err)
			out = append(out, p)
		}
		return out
	}
	system, err := wheel.NewSystem(wheel.Split, [3][]*paint.Paint{find("PY184", "PY65"), find("PR255", "PR122"), find("PB29", "PB15:3")})
	require.NoError(t, err)
	in, err := paint.ParseMedium("gouache")
	require.NoError(t, err)
	sheet := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, bench.Usual(in))
	var out strings.Builder
	out.WriteString("slot,L,a,b,state\n")
	for i := range sheet.Regions {
		parts := sheet.Regions[i].Recipe.Plain()
		for n := range parts {
			if parts[n].Paint.ID == tube {
				parts[n].Paint = find(really)[0]
			}
		}
		m, err := paint.Mix(parts...)
		require.NoError(t, err)
		look := m.AsPainted(in, false)
		lab := look.Lab()
		fmt.Fprintf(&out, "%s,%.2f,%.2f,%.2f,dry\n", sheet.Regions[i].ID, lab.L, lab.A, lab.B)
	}
	return out.String()
}

// A tube that behaves as another paint is asked about before anything is learned; what the painter says to
// that is kept, and taken back.
func TestAWrongTubeIsAskedAbout(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Log")
	p.element("a", "7 of 15 painted").MustClick()
	p.element("a", "read what was painted").MustClick()
	p.choose("read", "from a file")
	file := filepath.Join(t.TempDir(), "readings.csv")
	require.NoError(t, os.WriteFile(file, []byte(misread(t, "PY65", "PY3")), 0o600))
	p.upload("choose a file of readings", file)
	p.press("keep 15 readings")
	p.see("15 of 15 read")
	p.goTo("Log")
	p.element("a", "under way").MustClick()
	p.see("behaves as another paint, most like arylide yellow light")
	p.see("No strengths are offered before this is answered.")
	assert.False(t, p.shows("take it into the box"))
	p.press("it is the tube it says")
	p.see("You said that the arylide yellow deep is the tube it says.")
	p.MustReload()
	p.see("You said that the arylide yellow deep is the tube it says.")
	p.press("take that back")
	p.see("behaves as another paint")
	assert.Empty(t, p.complaints())
}
