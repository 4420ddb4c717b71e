package journal

import (
	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/photo"
)

// Photograph is a photo that places were read from: all of them are bent alike by its rendering.
type Photograph struct {
	Greys []Grey // on it, whose reflectance is known
}

// Grey is a grey on a photo.
type Grey struct {
	Lab      colour.Lab  // as it was read, D65
	Light    photo.Light // bare paper beside it
	Reflects float64     // 0 to 1
	Spread   float64     // standard deviation of the logarithm of that
}

// PhotoSpot is where on a photo a place was read.
type PhotoSpot struct {
	Of     *Photograph // nil where no more is known than that it was a photo
	Light  photo.Light // bare paper beside it
	Spread float64     // standard deviation within the spot, CIELAB
}

// What the ink of a sheet's marks reflects, and how far that strays (of its logarithm); and how far a
// grey step strays that was measured.
const (
	inkReflects = 0.035
	inkStrays   = 0.3
	stepStrays  = 0.1
)

// PhotographOf is a photo by what is printed on its sheet: the ink of its marks and, where what it reflects
// was measured (0 to 1; 0 where it was not), the grey step.
func PhotographOf(of photo.Greys, step float64) *Photograph {
	out := &Photograph{}
	if of.Ink != nil {
		out.Greys = append(out.Greys, Grey{of.Ink.Lab, of.Ink.Light, inkReflects, inkStrays})
	}
	if of.Step != nil && step > 0 {
		out.Greys = append(out.Greys, Grey{of.Step.Lab, of.Step.Light, step, stepStrays})
	}
	return out
}

// LayerOf is a place of a sheet, as it is planned, that others are laid over.
func LayerOf(r *bench.Region) Layer { return Layer{Parts: r.Recipe.Plain(), Film: r.Film} }

// SamplesOf are what was read of a sheet from a photo, but for what is doubted: of its places as they are
// planned. Step is what the grey step was measured to reflect, 0 where it was not.
func SamplesOf(s *bench.Sheet, in paint.Medium, read *photo.Result, step float64) (out []Sample) {
	of := PhotographOf(read.Greys, step)
	for _, one := range read.Readings {
		if r := &s.Regions[one.Region]; one.Doubt == "" {
			sample := Sample{Region: r.ID, Film: r.ReadFilm(in), Parts: r.Recipe.Plain(), Lab: one.Lab, Noise: NoiseOf(paint.Photo, one.Spread), Photo: &PhotoSpot{of, one.Light, one.Spread}}
			for _, k := range r.Beneath {
				sample.Under = append(sample.Under, LayerOf(&s.Regions[k]))
			}
			out = append(out, sample)
		}
	}
	return out
}
