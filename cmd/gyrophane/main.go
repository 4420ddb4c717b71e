// Command gyrophane serves the application and answers the same questions on
// the command line.
package main

import (
	"fmt"
	"os"

	"github.com/spf13/cobra"
)

func main() {
	root := &cobra.Command{
		Use:           "gyrophane",
		Short:         "Compares painters' primary systems by building colour wheels from real paints",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	root.CompletionOptions.DisableDefaultCmd = true
	root.AddCommand(serveCommand(), openapiCommand())
	if err := root.Execute(); err != nil {
		fmt.Fprintln(os.Stderr, "gyrophane: "+err.Error())
		os.Exit(2)
	}
}
