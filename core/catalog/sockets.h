// Contacts of connectors by their width, and sockets that a standard describes: pins, functions, sizes.
// data/catalog/joining.json.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace yr {

// A pair of contacts, crimped copper: what it carries alone at 25 C and what it adds to a cable.
struct ContactSize {
    double width_mm = 0, amps = 0, mohm = 0;
};

// Of that width, or the next one below; the smallest for what is smaller still.
[[nodiscard]] const ContactSize& contact_size(double width_mm);
[[nodiscard]] const std::vector<ContactSize>& contact_sizes();

struct SocketPin {
    int pin = 1;
    std::string function;
    double area_mm2 = 0;  // of the core it is made for
    double amps = 0;
};

struct Socket {
    std::string key;  // as in the plan's file
    std::string name;
    std::vector<SocketPin> pins;  // numbered from 1, in order
};

[[nodiscard]] const std::vector<Socket>& sockets();
// nullptr: no standard of that key is known here.
[[nodiscard]] const Socket* socket_named(std::string_view key);

}  // namespace yr
