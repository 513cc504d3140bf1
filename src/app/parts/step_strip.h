// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStringList>
#include <QWidget>

#include <vector>

class QButtonGroup;
class QPushButton;

namespace inchpeg::app
{

/// How a part stands, told by the shape beside its name.
enum class StepState {
    Open, ///< an empty hole: nothing said yet
    Done, ///< a filled peg
    Mind, ///< a peg with a stroke: something to look at
};

/// The strip of parts above a lens; any part can be opened at any time.
class StepStrip : public QWidget
{
    Q_OBJECT
public:
    /// names: of the parts, in order. objectName: of the buttons, with the part's number behind it.
    StepStrip(QStringList names, const QString &objectName, QWidget *parent = nullptr);
    void setState(int part, StepState state, const QString &tip);
    void choose(int part);

signals:
    void chosen(int part);

protected:
    void changeEvent(QEvent *event) override;

private:
    void dress(std::size_t index);
    struct Part {
        QPushButton *button = nullptr;
        StepState state = StepState::Open;
    };
    QStringList m_names;
    std::vector<Part> m_parts;
    QButtonGroup *m_group = nullptr;
};

} // namespace inchpeg::app
