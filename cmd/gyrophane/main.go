// Command gyrophane serves the application and answers the same questions on
// the command line.
package main

import (
	"fmt"
	"io"
	"os"

	"github.com/spf13/cobra"
)

func main() {
	os.Exit(run(os.Args[1:], os.Stdout, os.Stderr))
}

// run is one call of the command: 0 when it went well, 2 with one sentence on
// stderr when it did not.
func run(args []string, stdout, stderr io.Writer) int {
	root := &cobra.Command{
		Use:           "gyrophane",
		Short:         "Compares painters' primary systems by building colour wheels from real paints",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	root.DisableSuggestions = true
	root.CompletionOptions.DisableDefaultCmd = true
	root.AddCommand(serveCommand(), mixCommand(), planCommand(), drawCommand(), sheetCommand(), paletteCommand(), pairCommand(), pairsCommand(), compareCommand(), matchCommand(), chooseCommand(), correctCommand(), wheelCommand(), neutralCommand(), photoCommand(), readCommand(), learnCommand(), surerCommand(), nameCommand(), explainCommand(), paintsCommand(), refitCommand(), meterCommand(), doctorCommand(), backupCommand(), restoreCommand(), openapiCommand())
	root.SetArgs(args)
	root.SetOut(stdout)
	root.SetErr(stderr)
	if err := root.Execute(); err != nil {
		fmt.Fprintln(stderr, "gyrophane: "+err.Error())
		return 2
	}
	return 0
}
