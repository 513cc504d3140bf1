// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/prompts.h"
#include "app/session/project_session.h"
#include "core/model/study_log.h"

#include <QTimer>
#include <QWidget>

class QComboBox;
class QHBoxLayout;
class QLineEdit;
class QVBoxLayout;

namespace inchpeg::app
{

/// Drying, conditioning and annealing as timed steps.
class ConditionPage : public QWidget
{
    Q_OBJECT
public:
    ConditionPage(ProjectSession &session, Prompts &prompts, QWidget *parent = nullptr);
    void refresh();

private:
    QWidget *createStart();
    void addStep(std::size_t index);
    void addField(QHBoxLayout *row, std::size_t index, const TimedStep &shown, const char *name,
                  const QString &label, int width, const QString &text,
                  const std::function<Status(TimedStep &, const QString &)> &set);
    /// shown: the step as its row shows it.
    bool change(const QString &what, std::size_t index, const TimedStep &shown,
                const std::function<Status(TimedStep &)> &edit);
    void begin(StepKind kind);
    void skip();

    ProjectSession &m_session;
    QVBoxLayout *m_steps = nullptr;
    QComboBox *m_plates = nullptr;
    QComboBox *m_skipKind = nullptr;
    QLineEdit *m_reason = nullptr;
    QTimer m_minute; ///< times that run on are shown anew
};

} // namespace inchpeg::app
