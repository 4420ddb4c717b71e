package files

import (
	"bufio"
	"bytes"
	"encoding/json"
	"encoding/xml"
	"io"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/wheel"
)

// aPalette are the places of a wheel with rings, under a name that no format likes.
func aPalette(t *testing.T, r *rand.Rand, group string) []Swatch {
	t.Helper()
	pick := func(role ...string) []*paint.Paint { return painttest.Paints(role[r.IntN(len(role))]) }
	system, err := wheel.NewSystem(wheel.RYB, [3][]*paint.Paint{pick("PY3", "PY65", "PY184"), pick("PR254", "PR122", "PV19"), pick("PB29", "PB15:3", "PB60")})
	require.NoError(t, err)
	options := wheel.Options{TintBy: wheel.ByWhite, ShadeBy: wheel.ByComplement}
	options.Called[2] = `<"rock, pool">`
	in := paint.Media()[r.IntN(len(paint.Media()))]
	s := bench.Wheel(wheel.Build(system, options), bench.Extras{Tints: 1, Neutral: true}, bench.Usual(in))
	return SheetSwatches(&s, in, group)
}

// What goes out as a palette comes back with its colours, in whatever format and whatever its names.
func TestPalettesComeBackAsTheyWent(t *testing.T) {
	r := rand.New(rand.NewPCG(32, 1))
	for n := range 12 {
		group := []string{"", `=Low & "water"`}[n%2]
		all := aPalette(t, r, group)
		made := func(f SwatchFormat) []byte {
			t.Helper()
			out, err := Swatches(f, `Tide <"pool">`+"\n", "dry", all)
			require.NoError(t, err)
			return out.Body
		}
		few := all[:min(len(all), 24)] // as many are wanted at once
		for _, f := range []SwatchFormat{GPL, CSV} {
			wanted, err := ReadWanted(made(f))
			require.NoError(t, err, f)
			require.GreaterOrEqual(t, len(wanted), len(few), f)
			for i := range few {
				off := 0.01
				if f == GPL {
					off = 60 // what lies outside of what a screen shows is brought inside
					if !all[i].Lab.OKLab().Screen().Clipped {
						off = 0.8 // of a step in each of three channels
					}
				}
				assert.Less(t, colour.Difference(all[i].Lab, *wanted[i].Lab), off, "%s: %s", f, all[i].Name)
				assert.Contains(t, wanted[i].Name, strings.Trim(all[i].Name, `<"`)[:3], f)
			}
		}
		for _, f := range []SwatchFormat{CGATS, SPECT} {
			got, err := ReadSpectra(made(f))
			require.NoError(t, err, f)
			require.Len(t, got.Samples, len(all), f)
			assert.Equal(t, f == SPECT, got.Percent, f)
			for i := range all {
				assert.InDeltaSlice(t, all[i].Spectrum[:], got.Samples[i].Spectrum[:], 1e-5, f)
			}
		}
		var back paletteJSON
		require.NoError(t, json.Unmarshal(made(JSON), &back))
		require.Len(t, back.Swatches, len(all))
		for i := range all {
			assert.Equal(t, all[i].Name, back.Swatches[i].Name)
			assert.Equal(t, group, back.Swatches[i].System)
			assert.InDeltaSlice(t, all[i].Spectrum[:], back.Swatches[i].Spectrum, 1e-12)
		}
		d := xml.NewDecoder(bytes.NewReader(made(SVGs)))
		drawn := 0
		for {
			token, err := d.Token()
			if err == io.EOF {
				break
			}
			require.NoError(t, err)
			if e, is := token.(xml.StartElement); is && e.Name.Local == "rect" {
				drawn++
			}
		}
		assert.Equal(t, len(all), drawn)
	}
	_, err := Swatches("aco", "x", "", nil)
	assert.ErrorAs(t, err, new(input.Error))
}

// A colour tool that knows nothing of us reads the spectra as they are, and comes to the same CIELAB.
func TestSpectraAreReadByAColourTool(t *testing.T) {
	r := rand.New(rand.NewPCG(32, 2))
	for name, body := range map[string][]byte{"library": PaintsSPECT(paint.Library()), "wheel": spect("a wheel", aPalette(t, r, ""))} {
		want := aPaletteOf(t, body)
		dir := t.TempDir()
		from, to := filepath.Join(dir, "ours.sp"), filepath.Join(dir, "theirs.sp")
		require.NoError(t, os.WriteFile(from, body, 0o600))
		out, err := exec.Command("spec2cie", "-i", "D65", "-n", from, to).CombinedOutput()
		require.NoError(t, err, "%s: %s", name, out)
		theirs, err := os.ReadFile(to)
		require.NoError(t, err)
		n := 0
		scan := bufio.NewScanner(bytes.NewReader(theirs))
		at := -1
		for scan.Scan() {
			line := scan.Text()
			switch fields := strings.Fields(line[strings.LastIndex(line, `"`)+1:]); {
			case strings.HasPrefix(line, "SAMPLE_ID"):
				for k, f := range strings.Fields(line) {
					if f == "D65LAB_L" {
						at = k - 2
					}
				}
			case at >= 0 && strings.Contains(line, `"`) && len(fields) >= at+3:
				var lab [3]float64
				for k := range lab {
					lab[k], err = strconv.ParseFloat(fields[at+k], 64)
					require.NoError(t, err, line)
				}
				assert.InDeltaSlice(t, []float64{want[n].L, want[n].A, want[n].B}, lab[:], 0.1, "%s: %s", name, line)
				n++
			}
		}
		assert.Equal(t, len(want), n, name)
	}
}

// aPaletteOf is what we see in spectra ourselves.
func aPaletteOf(t *testing.T, body []byte) (out []colour.Lab) {
	t.Helper()
	got, err := ReadSpectra(body)
	require.NoError(t, err)
	for i := range got.Samples {
		out = append(out, got.Samples[i].Spectrum.Lab())
	}
	return out
}
