"""What the hands are told, as data: marks on the work, how it lies, what is done; its words in one room."""
