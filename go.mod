module frugalheron

go 1.26.0

require github.com/spf13/cobra v1.10.2

require (
	github.com/inconshreveable/mousetrap v1.1.0 // indirect
	github.com/spf13/pflag v1.0.10 // indirect
	pgregory.net/rapid v1.3.0 // indirect
)
