"""Renders the application's PNG icon from its SVG, so that the window needs no SVG plugin at run time."""

from pathlib import Path

from PyQt6.QtGui import QGuiApplication, QImage, QPainter
from PyQt6.QtSvg import QSvgRenderer

ROOT = Path(__file__).parents[1]


def main() -> None:
    app = QGuiApplication([])
    image = QImage(128, 128, QImage.Format.Format_ARGB32)
    image.fill(0)
    painter = QPainter(image)
    QSvgRenderer(str(ROOT / "packaging/keelroom.svg")).render(painter)
    painter.end()
    image.save(str(ROOT / "src/keelroom/assets/keelroom.png"))
    app.quit()


if __name__ == "__main__":
    main()
