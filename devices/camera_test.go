package devices

import (
	"image"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/photo"
	"gyrophane/core/wheel"
)

// paintedSheet is a split wheel as it is painted in a medium, or a scale of its orange.
func paintedSheet(t *testing.T, medium, kind string) (bench.Sheet, paint.Medium) {
	t.Helper()
	in, err := paint.ParseMedium(medium)
	require.NoError(t, err)
	system, err := wheel.NewSystem(wheel.Split, [3][]*paint.Paint{painttest.Paints("PY184", "PY65"), painttest.Paints("PR255", "PR122"), painttest.Paints("PB29", "PB15:3")})
	require.NoError(t, err)
	set := bench.Usual(in)
	s, err := bench.Which{Kind: bench.SheetKind(kind), Slot: 2}.Of(wheel.Build(system, wheel.Options{TintBy: wheel.ByWhite, ShadeBy: wheel.ByComplement}), bench.Material{}, bench.Extras{}, set)
	require.NoError(t, err)
	return s, in
}

// A graded wheel is photographed so, and what is read of it in its outer third is what lies there; a
// dark violet shows more of its hue than one that is laid flat.
func TestAGradedSheetIsReadInItsOuterThird(t *testing.T) {
	in, err := paint.ParseMedium("watercolour")
	require.NoError(t, err)
	system, err := wheel.NewSystem(wheel.Split, [3][]*paint.Paint{painttest.Paints("PY184", "PY65"), painttest.Paints("PR255", "PR122"), painttest.Paints("PB29", "PB15:3")})
	require.NoError(t, err)
	read := func(slots bench.Slots) (bench.Sheet, image.Image, photo.Result) {
		set, err := bench.Settings{Medium: in, Slots: slots}.Complete()
		require.NoError(t, err)
		s := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, set)
		img, err := Photograph(&s, in, small(Shot{Seed: 7}))
		require.NoError(t, err)
		got, err := readOff(img, &s)
		require.NoError(t, err)
		return s, img, got
	}
	flat, plain, flatly := read(bench.Flat)
	graded, faded, got := read(bench.Graded)
	assert.NotEqual(t, plain, faded)
	var off []float64
	for i, one := range got.Readings {
		r := &graded.Regions[one.Region]
		there, rim := r.Read(in, false), r.Appearance(in, false)
		if one.Doubt == "" {
			off = append(off, colour.Difference(one.Lab, there.Lab()))
		}
		assert.NotContains(t, one.Doubt, "uneven", r.Label)
		assert.Greater(t, there.Lab().L, rim.Lab().L, "%s is thinner there", r.Label)
		assert.Equal(t, r.ID, flat.Regions[flatly.Readings[i].Region].ID)
		assert.Greater(t, one.Lab.L, flatly.Readings[i].Lab.L, r.Label)
	}
	slices.Sort(off)
	assert.Less(t, off[len(off)/2], 1.5, "median")
	assert.Less(t, off[len(off)-1], 4.0, "worst")
}

// small is a shot that is quick to render.
func small(more Shot) Shot {
	more.W, more.H = 1000, 750
	return more
}

// readOff finds the marks of a picture and reads it.
func readOff(img image.Image, s *bench.Sheet) (photo.Result, error) {
	p := photo.FromImage(img)
	at, err := photo.FindMarks(&p, s)
	if err != nil {
		return photo.Result{}, err
	}
	return photo.ReadSheet(&p, s, at, nil)
}

// What is read in daylight comes near to what was painted, in every medium; what is not
// believed is not counted.
func TestASheetIsReadFromThePhotoOfTheStandin(t *testing.T) {
	for n, in := range paint.Media() {
		kind := "wheel"
		if n%2 == 1 {
			kind = "values"
		}
		s, medium := paintedSheet(t, in.ID, kind)
		var off []float64
		for seed := range uint64(2) {
			shot := small(Shot{Seed: seed + uint64(10*n), Strength: map[string]float64{"PB29": 1.6}})
			img, err := Photograph(&s, medium, shot)
			require.NoError(t, err)
			got, err := readOff(img, &s)
			require.NoError(t, err, in.ID)
			assert.Len(t, got.Readings, len(s.Regions))
			for _, r := range got.Readings {
				m, err := shot.True(&s.Regions[r.Region])
				require.NoError(t, err)
				look := s.Regions[r.Region].GradedAt(&m, medium, false, bench.ReadAt)
				if r.Doubt == "" {
					off = append(off, colour.Difference(r.Lab, look.Lab()))
				}
			}
		}
		require.NotEmpty(t, off, in.ID)
		slices.Sort(off)
		assert.Less(t, off[len(off)/2], 2.0, "%s: median", in.ID)
		assert.Less(t, off[len(off)-1], 5.0, "%s: worst", in.ID)
	}
}

// Sheets that hold a wheel among rows, or paints beside what is mixed of them, are read like a wheel; a
// wheel that is drawn out too.
func TestSheetsOfSeveralPartsAreReadFromAPhoto(t *testing.T) {
	for _, in := range []string{"watercolour", "gouache"} {
		for _, kind := range []bench.SheetKind{bench.WorksheetSheet, bench.WarmCoolSheet, bench.GlazesSheet} {
			s, medium := paintedSheet(t, in, string(kind))
			img, err := Photograph(&s, medium, Shot{Seed: 3, W: 1400, H: 1050})
			require.NoError(t, err)
			got, err := readOff(img, &s)
			require.NoError(t, err, "%s in %s", kind, in)
			var off []float64
			for _, r := range got.Readings {
				region := &s.Regions[r.Region]
				there := region.Read(medium, false)
				if r.Doubt == "" {
					off = append(off, colour.Difference(r.Lab, there.Lab()))
				} else {
					assert.Contains(t, r.Doubt, "outside of what a photo can hold", "%s in %s: %s", kind, in, region.ID)
				}
			}
			require.Greater(t, 2*len(off), len(s.Regions), "%s in %s: what is believed", kind, in)
			slices.Sort(off)
			assert.Less(t, off[len(off)/2], 2.0, "%s in %s: median", kind, in)
			assert.Less(t, off[len(off)-1], 5.0, "%s in %s: worst", kind, in)
		}
	}
}

func TestTheTrueStrengthIsSeen(t *testing.T) {
	s, in := paintedSheet(t, "gouache", "wheel")
	plain, strong := small(Shot{Seed: 4}), small(Shot{Seed: 4, Strength: map[string]float64{"PB29": 1.8}})
	var lab [2]colour.Lab
	violet := s.Find("violet")
	for n, shot := range []Shot{plain, strong} {
		img, err := Photograph(&s, in, shot)
		require.NoError(t, err)
		got, err := readOff(img, &s)
		require.NoError(t, err)
		lab[n] = got.Readings[violet].Lab
	}
	assert.Greater(t, colour.Difference(lab[0], lab[1]), 2.0)
}

// Turned by quarters a picture is read the same; whatever makes it untrue is refused with
// what to do.
func TestPhotosThatCannotBeTrustedAreRefused(t *testing.T) {
	s, in := paintedSheet(t, "gouache", "wheel")
	good, err := Photograph(&s, in, small(Shot{Seed: 2}))
	require.NoError(t, err)
	straight, err := readOff(good, &s)
	require.NoError(t, err)
	var turned image.Image = good
	for range 3 {
		turned = quarter(turned)
		got, err := readOff(turned, &s)
		require.NoError(t, err)
		for i, r := range got.Readings {
			assert.Less(t, colour.Difference(r.Lab, straight.Readings[i].Lab), 0.5)
		}
	}
	for says, shot := range map[string]Shot{
		"a shadow's edge": {Seed: 5, Shadow: true},
		"a warm lamp":     {Seed: 6, Light: colour.A},
		"mirrored":        {Seed: 7, Mirrored: true},
		"marks":           {Seed: 8, Blur: 5},
	} {
		img, err := Photograph(&s, in, small(shot))
		require.NoError(t, err)
		_, err = readOff(img, &s)
		assert.ErrorContains(t, err, says)
		assert.ErrorAs(t, err, new(input.Error))
	}
	soft, err := Photograph(&s, in, small(Shot{Seed: 2, Blur: 2}))
	require.NoError(t, err)
	p := photo.FromImage(soft)
	_, err = photo.ReadSheet(&p, &s, straight.Corners, nil)
	assert.ErrorContains(t, err, "blurred")

	cropped := good.SubImage(image.Rect(0, 0, 1000, 420))
	_, err = readOff(cropped, &s)
	assert.ErrorContains(t, err, "four marks of the sheet were not found")
	tiny, err := Photograph(&s, in, Shot{Seed: 2, W: 240, H: 180})
	require.NoError(t, err)
	_, err = readOff(tiny, &s)
	assert.Error(t, err)
	p = photo.FromImage(tiny)
	quarterSize := straight.Corners
	for i := range quarterSize {
		quarterSize[i] = [2]float64{straight.Corners[i][0] * 0.24, straight.Corners[i][1] * 0.24}
	}
	_, err = photo.ReadSheet(&p, &s, quarterSize, nil)
	assert.ErrorContains(t, err, "too small")

	// Gallery light is read; of a slot that mirrors a lamp only that is doubted.
	gallery, err := Photograph(&s, in, small(Shot{Seed: 9, Light: colour.D50}))
	require.NoError(t, err)
	got, err := readOff(gallery, &s)
	require.NoError(t, err)
	assert.Less(t, got.Kelvin, 6200.0)
	glaring, err := Photograph(&s, in, small(Shot{Seed: 9, Glare: 4}))
	require.NoError(t, err)
	got, err = readOff(glaring, &s)
	require.NoError(t, err)
	assert.NotEmpty(t, got.Readings[3].Doubt)
}

// quarter is an image turned a quarter round, clockwise.
func quarter(img image.Image) image.Image {
	b := img.Bounds()
	out := image.NewNRGBA(image.Rect(0, 0, b.Dy(), b.Dx()))
	for y := range b.Dy() {
		for x := range b.Dx() {
			out.Set(b.Dy()-1-y, x, img.At(x, y))
		}
	}
	return out
}

func TestMarksThatAreGivenAreChecked(t *testing.T) {
	s, in := paintedSheet(t, "acrylic", "wheel")
	img, err := Photograph(&s, in, small(Shot{Seed: 3}))
	require.NoError(t, err)
	p := photo.FromImage(img)
	for says, at := range map[string]photo.Corners{
		"outside of the picture": {{-5, 0}, {900, 0}, {900, 700}, {0, 700}},
		"mirrored":               {{900, 10}, {10, 10}, {10, 700}, {900, 700}},
		"do not stand round":     {{10, 10}, {900, 700}, {900, 10}, {10, 700}},
	} {
		_, err := photo.ReadSheet(&p, &s, at, nil)
		assert.ErrorContains(t, err, says)
	}
	at, err := photo.FindMarks(&p, &s)
	require.NoError(t, err)
	whole, err := photo.ReadSheet(&p, &s, at, nil)
	require.NoError(t, err)
	some, err := photo.ReadSheet(&p, &s, at, map[string]photo.Spot{"green": {Left: true}, "orange": {DX: 200}})
	require.NoError(t, err)
	assert.Len(t, some.Readings, len(whole.Readings)-1)
	orange := s.Find("orange")
	assert.NotEqual(t, whole.Readings[orange].Lab, some.Readings[orange].Lab)
	for _, even := range []bool{false, true} {
		img := whole.Straight(&p, &s, even)
		w, h := photo.StraightSize(&s)
		assert.Equal(t, image.Pt(w, h), img.Bounds().Size())
		for _, at := range photo.StraightOutline(&s, orange, photo.Spot{}) {
			assert.True(t, image.Pt(int(at[0]), int(at[1])).In(img.Bounds()))
		}
	}
	// Drawn freely: by the quarter points of its rim the same is read.
	var rim photo.Corners
	for i, q := range s.Quarters() {
		rim[i] = whole.Pixel(q[0], q[1])
	}
	drawn, err := photo.ReadDrawn(&p, &s, rim, nil)
	require.NoError(t, err)
	for i, r := range drawn.Readings {
		assert.Less(t, colour.Difference(r.Lab, whole.Readings[i].Lab), 0.2)
	}
	_, err = Photograph(&s, in, Shot{W: 20000, H: 10})
	assert.ErrorContains(t, err, "from 64 to 6000")
}

// What got into a place shows there and nowhere else, and a wet sheet is a darker one.
func TestTracesAndWetPaintAreSeen(t *testing.T) {
	s, in := paintedSheet(t, "gouache", "wheel")
	green := s.Find("green")
	red, err := paint.Find("PR254")
	require.NoError(t, err)
	pure := Shot{}
	traced := Shot{Traces: map[string]Trace{"green": {Paint: red, Share: 0.04}}}
	for i := range s.Regions {
		was, err := pure.True(&s.Regions[i])
		require.NoError(t, err)
		is, err := traced.True(&s.Regions[i])
		require.NoError(t, err)
		if i == green {
			assert.NotEqual(t, was.K(), is.K())
		} else {
			assert.Equal(t, was.K(), is.K(), s.Regions[i].ID)
		}
	}
	// Gouache is darker while it is wet.
	seen := map[bool]float64{}
	for _, wet := range []bool{false, true} {
		img, err := Photograph(&s, in, small(Shot{Seed: 3, Wet: wet}))
		require.NoError(t, err)
		read, err := readOff(img, &s)
		require.NoError(t, err)
		for _, r := range read.Readings {
			if s.Regions[r.Region].ID == "violet" {
				seen[wet] = r.Lab.L
			}
		}
	}
	assert.Less(t, seen[true], seen[false]-3)
}
