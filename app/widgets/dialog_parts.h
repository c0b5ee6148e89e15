// What dialogs that ask for several fields are made of.
#pragma once

#include <QDialog>
#include <QLabel>
#include <QVBoxLayout>

namespace yr::app {

// A label with its field beside it, as one line of the column.
void field_row(QVBoxLayout* column, const QString& label, QWidget* field, int label_width);

// The sentence of what cannot be; empty at first.
[[nodiscard]] QLabel* problem_label();

// "Leave it" and the word that does it, at the foot: they reject and accept the dialog.
void add_buttons(QVBoxLayout* column, QDialog* dialog, const QString& does);

}  // namespace yr::app
