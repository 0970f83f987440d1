"""Build → core inputs → operating points → Assessment: translates, words findings, maps fixes to edits."""
