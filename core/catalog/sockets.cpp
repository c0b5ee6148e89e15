#include "catalog/sockets.h"

#include "catalog/shipped.h"

namespace yr {
namespace {

struct Joining {
    std::vector<ContactSize> contacts;
    std::vector<Socket> sockets;
};

const Joining& joining() {
    static const Joining all = [] {
        Joining read;
        const auto file = shipped_table("joining.json");
        for (const auto& x : file.at("contacts"))
            read.contacts.push_back({x.at("width_mm"), x.at("amps"), x.at("mohm")});
        for (const auto& x : file.at("sockets")) {
            Socket s{x.at("key"), x.at("name"), {}};
            for (const auto& p : x.at("pins"))
                s.pins.push_back({p.at("pin"), p.at("function"), p.at("mm2"), p.at("amps")});
            read.sockets.push_back(std::move(s));
        }
        return read;
    }();
    return all;
}

}  // namespace

const std::vector<ContactSize>& contact_sizes() {
    return joining().contacts;
}

const ContactSize& contact_size(double width_mm) {
    const auto& sizes = joining().contacts;
    const ContactSize* best = &sizes.front();
    for (const ContactSize& c : sizes)
        if (c.width_mm <= width_mm + 1e-6) best = &c;
    return *best;
}

const std::vector<Socket>& sockets() {
    return joining().sockets;
}

const Socket* socket_named(std::string_view key) {
    for (const Socket& s : joining().sockets)
        if (s.key == key) return &s;
    return nullptr;
}

}  // namespace yr
