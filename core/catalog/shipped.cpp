#include "catalog/shipped.h"

namespace yr {
namespace embedded {
std::string_view catalog_file(std::string_view name);
}

nlohmann::json shipped_table(std::string_view file_name) {
    return nlohmann::json::parse(embedded::catalog_file(file_name));
}

std::string_view shipped_text(std::string_view file_name) {
    return embedded::catalog_file(file_name);
}

}  // namespace yr
