#include "io/diagram_svg.h"

#include <fmt/format.h>

#include "io/svg_text.h"

namespace yr {

std::string diagram_svg(const Diagram& diagram, std::size_t sheet) {
    std::string out = fmt::format(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}mm\" height=\"{1}mm\" viewBox=\"0 0 {0} {1}\" "
        "font-family=\"sans-serif\">\n  <rect width=\"{0}\" height=\"{1}\" fill=\"white\"/>\n",
        diagram.wide_mm, diagram.high_mm);
    for (const Stroke& s : diagram.sheets[sheet].strokes) {
        const char* dash = s.dashed ? " stroke-dasharray=\"1 0.6\"" : "";
        switch (s.kind) {
            case StrokeKind::line:
                out += fmt::format(
                    "  <line x1=\"{:.2f}\" y1=\"{:.2f}\" x2=\"{:.2f}\" y2=\"{:.2f}\" stroke=\"black\" "
                    "stroke-width=\"{:.2f}\" stroke-linecap=\"round\"{}/>\n",
                    s.x, s.y, s.x2, s.y2, s.wide, dash);
                break;
            case StrokeKind::box:
                out += fmt::format(
                    "  <rect x=\"{:.2f}\" y=\"{:.2f}\" width=\"{:.2f}\" height=\"{:.2f}\" stroke=\"black\" "
                    "stroke-width=\"{:.2f}\" fill=\"{}\"/>\n",
                    s.x, s.y, s.x2 - s.x, s.y2 - s.y, s.wide, s.filled ? "black" : "none");
                break;
            case StrokeKind::circle:
                out += fmt::format(
                    "  <circle cx=\"{:.2f}\" cy=\"{:.2f}\" r=\"{:.2f}\" stroke=\"black\" "
                    "stroke-width=\"{:.2f}\" "
                    "fill=\"{}\"/>\n",
                    s.x, s.y, s.x2, s.wide, s.filled ? "black" : "none");
                break;
            case StrokeKind::text:
                out += fmt::format(
                    "  <text x=\"{:.2f}\" y=\"{:.2f}\" font-size=\"{:.2f}\" text-anchor=\"{}\"{}>{}</text>\n",
                    s.x, s.y, s.wide,
                    s.anchor == Anchor::left     ? "start"
                    : s.anchor == Anchor::middle ? "middle"
                                                 : "end",
                    s.bold ? " font-weight=\"bold\"" : "", svg_escaped(s.text));
                break;
        }
    }
    return out + "</svg>\n";
}

}  // namespace yr
