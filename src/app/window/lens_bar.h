// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"

#include <QWidget>

class QButtonGroup;

namespace inchpeg::app
{

inline constexpr Lens kLenses[] = {Lens::Plan, Lens::Log,     Lens::Bench,
                                   Lens::Read, Lens::Compare, Lens::Decide};

/// "Ask && plan": the name of a lens, for menus and buttons.
QString lensTitle(Lens lens);

/// A tab for each lens, with the digit that chooses it.
class LensBar : public QWidget
{
    Q_OBJECT
public:
    explicit LensBar(ProjectSession &session, QWidget *parent = nullptr);
    void refresh();

signals:
    /// A tab was chosen, be it the present one.
    void chosen();

private:
    ProjectSession &m_session;
    QButtonGroup *m_tabs = nullptr;
};

} // namespace inchpeg::app
