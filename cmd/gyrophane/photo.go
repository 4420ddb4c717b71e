package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"strconv"
	"strings"

	"github.com/spf13/cobra"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/photo"
	"gyrophane/devices"
	"gyrophane/files"
	"gyrophane/wire"
)

// sheetIn is the sheet of a plan in a file.
func sheetIn(file string) (s bench.Sheet, in paint.Medium, err error) {
	if file == "" {
		return s, in, errors.New("name a plan: --plan FILE, written by gyrophane plan --json > FILE")
	}
	data, err := readFile(file, wire.MostPlanBytes)
	if err != nil {
		return s, in, err
	}
	return wire.ParsePlan(data, paint.Find)
}

// readFile reads a file that is not larger than it may be.
func readFile(name string, most int64) ([]byte, error) {
	f, err := os.Open(name)
	if err != nil {
		return nil, err
	}
	defer f.Close()
	data, err := io.ReadAll(io.LimitReader(f, most+1))
	if err == nil && int64(len(data)) > most {
		err = fmt.Errorf("%s is larger than %d MB", name, most>>20)
	}
	return data, err
}

func photoCommand() *cobra.Command {
	var plan, light, size, rendering string
	var strengths []string
	var shot devices.Shot
	c := &cobra.Command{
		Use:     "photo --plan FILE OUT.jpg",
		Short:   "A photo of a painted sheet, by a stand-in for a camera",
		Long:    "What a phone would see of a sheet that was painted by its recipes: rendered, and not taken. Brush, perspective,\nlight, noise and JPEG come by the seed. It serves the tests and the demo.",
		Example: "gyrophane photo --plan plan.json --strength PB29=1.6 --seed 1 out.jpg",
		Args:    cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			s, in, err := sheetIn(plan)
			if err != nil {
				return err
			}
			if shot.Light, err = colour.ParseLight(light); err != nil {
				return err
			}
			named, err := devices.ParseRendering(rendering)
			if err != nil {
				return err
			}
			for flag, figure := range map[string]struct{ to, of *float64 }{
				"contrast-curve": {&named.Contrast, &shot.Rendering.Contrast}, "saturation": {&named.Saturation, &shot.Rendering.Saturation}, "gamma": {&named.Gamma, &shot.Rendering.Gamma},
				"cast": {&named.Cast, &shot.Rendering.Cast}, "sharpen": {&named.Sharpened, &shot.Rendering.Sharpened},
			} {
				if cmd.Flags().Changed(flag) {
					*figure.to = *figure.of
				}
			}
			named.ColourFirst = named.ColourFirst || shot.Rendering.ColourFirst
			shot.Rendering = named
			shot.Strength = map[string]float64{}
			for _, text := range strengths {
				id, g, ok := strings.Cut(text, "=")
				v, err := strconv.ParseFloat(g, 64)
				if !ok || err != nil || !(v >= 0.05 && v <= 20) {
					return fmt.Errorf("--strength %.40q: write PAINT=TIMES, from 0.05 to 20, like PB29=1.6", text)
				}
				shot.Strength[id] = v
			}
			if size != "" {
				if n, err := fmt.Sscanf(size, "%dx%d", &shot.W, &shot.H); n != 2 || err != nil {
					return fmt.Errorf("--size %.20q: write WIDTHxHEIGHT, like 1600x1200", size)
				}
			}
			img, err := devices.Photograph(&s, in, shot)
			if err != nil {
				return err
			}
			out, err := files.JPEG(img)
			if err != nil {
				return err
			}
			return os.WriteFile(args[0], out, 0o644)
		},
	}
	f := c.Flags()
	f.StringVar(&plan, "plan", "", "a plan in JSON")
	f.StringArrayVar(&strengths, "strength", nil, "true strength of a tube over that on the plan, as PAINT=TIMES; several times")
	f.StringVar(&light, "light", "D65", "D65, D50 or A")
	f.Uint64Var(&shot.Seed, "seed", 0, "of everything that is left to chance")
	f.StringVar(&size, "size", "", "of the picture in pixels (1600x1200)")
	f.Float64Var(&shot.Contrast, "contrast", 0, "the brightest of the light over the darkest (by the seed, 1 to 3)")
	f.BoolVar(&shot.Shadow, "shadow", false, "a shadow's edge lies over the sheet")
	f.IntVar(&shot.Glare, "glare", 0, "the place, 1 up, that mirrors a lamp")
	f.Float64Var(&shot.Blur, "blur", 0, "pixels that it is out of focus by")
	f.Float64Var(&shot.Film, "film", 1, "how thick it was painted, over what the plan has")
	f.StringVar(&rendering, "rendering", "plain", "what the phone does to colours: plain, phone or strong; the next five change one thing of it")
	f.Float64Var(&shot.Rendering.Contrast, "contrast-curve", 0, "how steep the S of its tones is, 0 to 6")
	f.Float64Var(&shot.Rendering.Saturation, "saturation", 1, "factor of its saturation, 0.2 to 3")
	f.Float64Var(&shot.Rendering.Gamma, "gamma", 1, "power of its coded values, 0.3 to 3")
	f.Float64Var(&shot.Rendering.Cast, "cast", 0, "share by which red rises and blue falls, -0.2 to 0.2")
	f.Float64Var(&shot.Rendering.Sharpened, "sharpen", 0, "how much edges are raised, 0 to 2")
	f.BoolVar(&shot.Rendering.ColourFirst, "colour-first", false, "saturation before the tones")
	f.BoolVar(&shot.Mirrored, "mirrored", false, "it is mirrored")
	return c
}

// sheetRead is a photo of the sheet of a plan as it was read.
type sheetRead struct {
	sheet   bench.Sheet
	in      paint.Medium
	read    photo.Result
	found   bool
	refused error
}

// readSheet reads a photo of the sheet of a plan.
func readSheet(ctx context.Context, file, plan string) (out sheetRead, err error) {
	if out.sheet, out.in, err = sheetIn(plan); err != nil {
		return out, err
	}
	data, err := readFile(file, files.MostPhotoBytes)
	if err != nil {
		return out, err
	}
	picture, err := files.ReadPhoto(ctx, data)
	if err != nil {
		return out, err
	}
	p := picture.Reduced().Picture()
	at, err := photo.FindMarks(&p, &out.sheet)
	if out.found = err == nil; out.found {
		out.read, err = photo.ReadSheet(&p, &out.sheet, at, nil)
	}
	if errors.As(err, new(input.Error)) {
		out.refused, err = err, nil
	}
	return out, err
}

// ofGrey is the flag for what the grey step of a sheet was measured to be.
func ofGrey(c *cobra.Command, into *float64) {
	c.Flags().Float64Var(into, "grey", 0, "L* that the sheet's grey step was measured to have")
}

func readCommand() *cobra.Command {
	var plan string
	var asJSON bool
	var grey float64
	c := &cobra.Command{
		Use:     "read PHOTO --plan FILE",
		Short:   "The colours of a painted sheet, from one photo of it",
		Long:    "Reads each place of a painted sheet off a photo, JPEG or PNG, by the sheet's four marks and its bare paper.\nWhat the phone\ndid to all colours alike is taken out. A photo that cannot be trusted is refused with the reason.",
		Example: "gyrophane read out.jpg --plan plan.json --json",
		Args:    cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			got, err := readSheet(cmd.Context(), args[0], plan)
			if err != nil {
				return err
			}
			told := journal.Explain(journal.SamplesOf(&got.sheet, got.in, &got.read, photo.StepOf(grey)), got.in, journal.Sure{})
			out := wire.PhotoReadOf(&got.sheet, got.read, got.found, got.refused, &told)
			return (&question{json: asJSON}).answer(cmd, out, func(w io.Writer) { readTable(w, out) })
		},
	}
	c.Flags().StringVar(&plan, "plan", "", "a plan in JSON")
	ofGrey(c, &grey)
	c.Flags().BoolVar(&asJSON, "json", false, "JSON, as the HTTP API")
	return c
}

func readTable(w io.Writer, r wire.PhotoRead) {
	if r.Refused != "" {
		fmt.Fprintf(w, "refused: %s\t\t\t\t\n", r.Refused)
		return
	}
	fmt.Fprintf(w, "light of about %.0f K, %.1f to 1 over the sheet\t\t\t\t\n%s\t\t\t\t\n\nslot\tL*\ta*\tb*\tspread\tdoubt\n", r.Kelvin, r.Contrast, r.Does)
	for _, one := range r.Readings {
		fmt.Fprintf(w, "%s\t%.1f\t%.1f\t%.1f\t%.1f\t%s\n", one.Label, one.Lab[0], one.Lab[1], one.Lab[2], one.Spread, one.Doubt)
	}
}
