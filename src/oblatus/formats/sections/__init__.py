"""The sections of a fitting's document, one file each."""
