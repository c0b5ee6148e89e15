// The fields of a control box: its limits and its channels.
#include <algorithm>

#include "control/place_on.h"
#include "details/channel_table.h"
#include "details/details_panel.h"
#include "details/details_part.h"
#include "document/own_library.h"
#include "words/sentences.h"

namespace yr::app {
void fill_box(FieldForm& form, Document* doc, const Id& id) {
    const Edited<Point> box{doc, &Plan::points, id};
    form.heading(say("Control box"));
    number_field(form, box, &Point::main_A);
    number_field(form, box, &Point::standby_W);
    number_field(form, box, &Point::sleep_W);
    if (box.get().sleep_W)
        condition_fields(
            form, say("Awake"), doc, [box] { return box.alive() ? box.get().awake_when : Condition{}; },
            [box](const QString& what, const Condition& c) {
                box.set(what, [&](Point& p) { p.awake_when = c; });
            });
    number_field(form, box, &Point::cutoff_V);
    number_field(form, box, &Point::recover_V);
    number_field(form, box, &Point::cutoff_s);
    enum_field(form, box, say("Outputs"), {{say("relays"), "relay"}, {say("solid-state"), "solid_state"}},
               &Point::output);
    form.check(
        say("comes back after a power loss"), [box] { return box.alive() && box.get().remembers; },
        [box](bool on) {
            box.set(on ? say("comes back") : say("stays off"), [&](Point& p) { p.remembers = on; });
        });
    form.text(
        say("Shared limits"), [box] { return box.alive() ? q(typed_groups(box.get().groups)) : QString(); },
        [box](const QString& typed) {
            const auto groups = read_groups(typed.toStdString());
            if (!groups) return say("Shared limits: a name and amps each are needed, such as A: 35, B: 20.");
            return box.set(say("shared limits"), [&](Point& p) { p.groups = *groups; })
                       ? QString()
                       : say("A channel still belongs to a group that is gone.");
        },
        say("none, e.g. A: 35, B: 20"));
    form.add(new ChannelTable(doc, id));
    form.button(say("One channel more"), [box] {
        box.set(say("one channel more"), [](Point& p) {
            Channel c = p.channels.empty() ? Channel{} : p.channels.back();
            c.number = 1;
            for (const Channel& x : p.channels) c.number = std::max(c.number, x.number + 1);
            c.label.clear();
            p.channels.push_back(c);
        });
    });
    form.button(say("The last channel out"), [box, doc] {
        if (!box.alive() || box.get().channels.empty()) return;
        const int last = box.get().channels.back().number;
        if (run_on_channel(doc->plan(), box.id, last))
            doc->store().refuse(say("Channel %1 is in use; move what hangs on it first.").arg(last));
        else
            box.set(say("channel %1 out").arg(last), [](Point& p) { p.channels.pop_back(); });
    });
    form.button(say("Keep in my library"), [box, doc] {
        if (!box.alive()) return;
        const QString wrong = keep_box(box.get());
        doc->store().refuse(
            wrong.isEmpty()
                ? say("%1 is kept: it stands in Add, Control box.").arg(q(words::capital(box.get().name)))
                : wrong);
    });
}

}  // namespace yr::app
