#include <cstdio>
#include <fstream>
#include <sstream>

#include "choice/zero_one_solvers.h"
#include "files/program.h"

namespace yr {
namespace {

std::string exact(double v) {
    char text[40];
    std::snprintf(text, sizeof text, "%.17g", v);
    return text;
}

// Free MPS: the names are letters and numbers of ours.
bool write_mps(const ZeroOneProgram& program, const std::string& path) {
    std::ofstream out(path);
    out << "NAME choice FREE\nROWS\n N cost\n";
    for (std::size_t r = 0; r < program.rows().size(); ++r) {
        const RowSense sense = program.rows()[r].sense;
        out << (sense == RowSense::at_most ? " L r"
                : sense == RowSense::equal ? " E r"
                                           : " G r")
            << r << "\n";
    }
    std::vector<std::vector<std::pair<std::size_t, double>>> columns(program.costs().size());
    for (std::size_t r = 0; r < program.rows().size(); ++r)
        for (const ZeroOneTerm& t : program.rows()[r].terms) {
            auto& column = columns[static_cast<std::size_t>(t.choice)];
            if (!column.empty() && column.back().first == r)
                column.back().second += t.factor;
            else
                column.emplace_back(r, t.factor);
        }
    out << "COLUMNS\n";
    for (std::size_t k = 0; k < columns.size(); ++k) {
        out << " x" << k << " cost " << exact(program.costs()[k]) << "\n";
        for (const auto& [row, factor] : columns[k])
            out << " x" << k << " r" << row << " " << exact(factor) << "\n";
    }
    out << "RHS\n";
    for (std::size_t r = 0; r < program.rows().size(); ++r)
        if (program.rows()[r].right != 0)
            out << " rhs r" << r << " " << exact(program.rows()[r].right) << "\n";
    out << "BOUNDS\n";
    for (std::size_t k = 0; k < columns.size(); ++k)
        if (program.mosts()[k] > 0)
            out << " UP bound x" << k << " " << exact(program.mosts()[k]) << "\n";
        else
            out << " BV bound x" << k << "\n";
    out << "ENDATA\n";
    return static_cast<bool>(out.flush());
}

// "Optimal - objective value 12.5", then a line for each column that is not 0.
ZeroOneAnswer read_answer(const ZeroOneProgram& program, const std::string& path) {
    std::ifstream in(path);
    std::string line;
    if (!std::getline(in, line)) return {ZeroOneEnd::failed, 0, {}};
    if (line.starts_with("Infeasible") || line.starts_with("Integer infeasible"))
        return {ZeroOneEnd::infeasible, 0, {}};
    if (line.starts_with("Stopped")) return {ZeroOneEnd::stopped, 0, {}};
    if (!line.starts_with("Optimal")) return {ZeroOneEnd::failed, 0, {}};
    std::vector<double> values(program.costs().size(), 0);
    while (std::getline(in, line)) {
        std::istringstream words(line);
        std::string index, name;
        double value = 0;
        if (!(words >> index >> name >> value)) continue;
        if (index == "**") return {ZeroOneEnd::failed, 0, {}};  // it marks what breaks a bound
        const std::size_t k = name.starts_with("x") ? std::stoul(name.substr(1)) : values.size();
        if (k < values.size()) values[k] = value;
    }
    return answer_of(program, values);
}

}  // namespace

ZeroOneAnswer solve_beside(const ZeroOneProgram& program, const ZeroOneLimits& limits) {
    const ScratchFolder folder;
    if (!folder.there() || !write_mps(program, folder.file("model.mps"))) return {ZeroOneEnd::failed, 0, {}};
    std::vector<std::string> command{"cbc", folder.file("model.mps"), "-ratioGap", "0", "-allowableGap", "0"};
    if (!limits.worked_over) command.insert(command.end(), {"-preprocess", "off"});
    command.insert(command.end(), {"-solve", "-solution", folder.file("answer.txt")});
    const Ran ran = run_program(command, {limits.most_s, limits.cancel});
    if (ran == Ran::stopped) return {ZeroOneEnd::stopped, 0, {}};
    if (ran != Ran::well) return {ZeroOneEnd::failed, 0, {}};
    return read_answer(program, folder.file("answer.txt"));
}

}  // namespace yr
