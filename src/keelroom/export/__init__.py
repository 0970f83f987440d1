"""Back ends for scenes and tables: the PDF build sheet, SVG."""
