#include "fabricate/faces.h"

#include <algorithm>
#include <map>

#include "catalog/sockets.h"
#include "plan/plan.h"

namespace yr {
namespace {

constexpr int kMostInOneRow = 4;  // of a connector whose rows are not said

int pin_count(const Connector& c, const std::map<int, std::vector<std::size_t>>& used) {
    const Socket* socket = socket_named(c.socket);
    const int said = c.pins ? static_cast<int>(*c.pins) : socket ? static_cast<int>(socket->pins.size()) : 0;
    return std::max(said, used.empty() ? 0 : used.rbegin()->first);
}

}  // namespace

std::vector<ConnectorFace> connector_faces(const Plan& plan) {
    std::vector<ConnectorFace> faces;
    for (const Connector& c : plan.connectors) {
        std::map<int, std::vector<std::size_t>> used;
        for (std::size_t k = 0; k < plan.runs.size(); ++k)
            for (const PinUse& use : plan.runs[k].pins)
                if (use.connector == c.id) used[use.pin].push_back(k);
        const int count = pin_count(c, used);
        if (count == 0) continue;
        ConnectorFace face;
        face.connector = c.id;
        face.rows = std::min(count, c.rows ? static_cast<int>(*c.rows) : count <= kMostInOneRow ? 1 : 2);
        face.columns = (count + face.rows - 1) / face.rows;
        const Socket* socket = socket_named(c.socket);
        for (int k = 0; k < count; ++k) {
            FacePin pin;
            pin.number = k + 1;
            pin.column = k % face.columns, pin.row = k / face.columns;
            if (socket && k < static_cast<int>(socket->pins.size()))
                pin.function = socket->pins[static_cast<std::size_t>(k)].function;
            if (const auto found = used.find(pin.number); found != used.end()) pin.runs = found->second;
            face.pins.push_back(std::move(pin));
        }
        faces.push_back(std::move(face));
    }
    return faces;
}

}  // namespace yr
