#include "diagram/dot_layout.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <fstream>
#include <map>
#include <sstream>

namespace yr {
namespace {

constexpr double kMm_per_inch = 25.4;
constexpr double kBend_mm = 5;

std::string inches(double mm) {
    char text[32];
    std::snprintf(text, sizeof text, "%.4f", mm / kMm_per_inch);
    return text;
}

// Middle of each node as dot places it, mm; x grows with the rank.
struct Spots {
    std::vector<double> x_mm, y_mm;
    double high_mm = 0;
};

Result<Spots> ask_dot(const std::vector<GraphNode>& nodes, const std::vector<GraphEdge>& edges,
                      const ProgramLimits& limits) {
    const ScratchFolder folder;
    {
        std::ofstream out(folder.file("graph.dot"));
        out << "digraph g {\nrankdir=LR;\nranksep=1.2;\nnodesep=0.08;\n"
               "node [shape=box, fixedsize=true, label=\"\"];\n";
        for (std::size_t k = 0; k < nodes.size(); ++k)
            out << "n" << k << " [width=" << inches(nodes[k].wide_mm)
                << ", height=" << inches(nodes[k].high_mm) << "];\n";
        out << "{rank=min;";
        for (std::size_t k = 0; k < nodes.size(); ++k)
            if (nodes[k].first) out << " n" << k << ";";
        out << "}\n";
        for (const GraphEdge& e : edges) out << "n" << e.from << " -> n" << e.to << ";\n";
        out << "}\n";
    }
    if (run_program({"dot", "-Tplain", "-o", folder.file("plain.txt"), folder.file("graph.dot")}, limits) !=
        Ran::well)
        return fail(ErrorCode::unreadable_file, "dot");
    Spots spots;
    spots.x_mm.resize(nodes.size()), spots.y_mm.resize(nodes.size());
    std::ifstream in(folder.file("plain.txt"));
    std::string line;
    while (std::getline(in, line)) {
        std::istringstream words(line);
        std::string what, name;
        double scale = 0, x = 0, y = 0;
        words >> what;
        if (what == "graph" && words >> scale >> x >> y) spots.high_mm = y * kMm_per_inch;
        if (what != "node" || !(words >> name >> x >> y) || name.size() < 2) continue;
        const std::size_t k = std::stoul(name.substr(1));
        if (k >= nodes.size()) return fail(ErrorCode::unreadable_file, "dot");
        spots.x_mm[k] = x * kMm_per_inch;
        spots.y_mm[k] = spots.high_mm - y * kMm_per_inch;
    }
    return spots;
}

std::vector<int> ranks_of(const std::vector<double>& x_mm) {
    std::map<long, int> columns;
    for (const double x : x_mm) columns[std::lround(x)] = 0;
    // columns whose middles differ by the width of their boxes only are one rank
    int rank = -1;
    long last = -1000000;
    for (auto& [x, r] : columns) {
        if (x - last > 8) ++rank;
        r = rank, last = x;
    }
    std::vector<int> ranks;
    ranks.reserve(x_mm.size());
    for (const double x : x_mm) ranks.push_back(columns[std::lround(x)]);
    return ranks;
}

}  // namespace

Result<PlacedGraph> place_graph(const std::vector<GraphNode>& nodes, const std::vector<GraphEdge>& edges,
                                const ProgramLimits& limits) {
    PlacedGraph out;
    if (nodes.empty()) return out;
    const auto once = ask_dot(nodes, edges, limits);
    if (!once) return tl::unexpected(once.error());
    const std::vector<int> rank = ranks_of(once->x_mm);
    // lines over several ranks get a bend in each between, so that dot keeps room for them there
    std::vector<GraphNode> all = nodes;
    std::vector<GraphEdge> steps;
    std::vector<int> all_rank = rank;
    for (const GraphEdge& e : edges) {
        std::vector<std::size_t> way{e.from};
        const int a = rank[e.from], b = rank[e.to], step = b >= a ? 1 : -1;
        for (int r = a + step; step > 0 ? r < b : r > b; r += step) {
            way.push_back(all.size());
            all.push_back({kBend_mm, kBend_mm, false});
            all_rank.push_back(r);
        }
        way.push_back(e.to);
        for (std::size_t k = 0; k + 1 < way.size(); ++k) {
            const bool forward = all_rank[way[k]] <= all_rank[way[k + 1]];
            steps.push_back(forward ? GraphEdge{way[k], way[k + 1]} : GraphEdge{way[k + 1], way[k]});
        }
        out.ways.push_back(std::move(way));
    }
    const auto twice = ask_dot(all, steps, limits);
    if (!twice) return tl::unexpected(twice.error());
    for (std::size_t k = 0; k < all.size(); ++k) {
        const PlacedNode placed{all_rank[k], twice->y_mm[k]};
        (k < nodes.size() ? out.nodes : out.bends).push_back(placed);
        out.ranks = std::max(out.ranks, all_rank[k] + 1);
    }
    out.high_mm = twice->high_mm;
    return out;
}

}  // namespace yr
